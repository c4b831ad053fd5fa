import { useFetcher, useSearchParams } from "react-router";
import { GLOSS_ANGLES, type GlossAngle, angleToRead } from "#core/models/gloss/fresnel-gloss";
import { show, showWithUncertainty } from "#core/kernel/units/format";
import { type GlossRead, glossOf, glossReads, vehicleRead } from "#core/panel/gloss-read";
import { KeptForm } from "~/kit/draft/draft-form";
import type { FormAnswer } from "~/kit/form/answer";
import { usePanel } from "~/kit/panel/use-panel";
import { useUnits } from "~/kit/root/use-root";
import { StandIn } from "~/kit/shell/stand-in";
import { StrikeButton } from "~/kit/shell/strike-button";
import { Field, FieldErrors, SelectField } from "~/kit/ui/field";
import { Figure } from "~/kit/ui/figure";
import { Tag } from "~/kit/ui/tag";
import { glossWorking } from "./gloss.words";

const ROLES = { target: "the vehicle beside the repair", part: "the sprayed part" } as const;

/** Gloss of the vehicle and of the part: typed here, and as it was read. */
export function GlossReading() {
  const { state, formKey } = usePanel().view;
  const reads = glossReads(state.gloss);
  const vehicle = vehicleRead(reads);
  const advice = vehicle && angleToRead(vehicle.summary.middle_GU);
  return (
    <div className="mt-8 grid gap-x-10 gap-y-8 xl:grid-cols-[1fr_1.1fr]">
      <section aria-labelledby="read-title">
        <h3 id="read-title" className="mb-2 text-lg font-semibold">
          Read gloss
        </h3>
        <ReadGloss formKey={`${formKey}-gloss`} sprayed={state.coats.length + state.backCoats.length > 0} />
        {advice && (
          <p className="mt-3 text-[13px] text-ink2">
            Which angle: {advice.angle}°, because {advice.why}.
          </p>
        )}
      </section>
      <section aria-label="Gloss read" className="space-y-4">
        {reads.length === 0 && <p className="text-ink2">Nothing read yet.</p>}
        {reads.map((read) => (
          <Read key={read.newest.id} read={read} />
        ))}
      </section>
    </div>
  );
}

/** One surface at one angle: what counts, and what was read of it before. */
function Read({ read: { role, summary, newest, earlier } }: { read: GlossRead }) {
  const units = useUnits();
  const say = (GU: number) => show("gloss", GU, units).text;
  return (
    <div className="border-b border-hair pb-3">
      <div className="flex flex-wrap items-center gap-2">
        <Figure
          size="middle"
          label={`at ${summary.angle}°, ${ROLES[role]}`}
          shown={showWithUncertainty("gloss", summary.middle_GU, summary.u_GU, units)}
          note={`${summary.n} readings, ${say(summary.lowest_GU)} to ${say(summary.highest_GU)}: ${summary.words}`}
          working={glossWorking(summary, units)}
        />
        {newest.simulated && <Tag kind="simulated">simulated</Tag>}
        {!summary.uniform && <Tag kind="caution">patchy</Tag>}
        <StrikeButton entryId={newest.id} what={`gloss at ${summary.angle}°`} />
      </div>
      {earlier.map((e) => (
        <p key={e.id} className="flex items-center gap-2 text-ink2">
          before it {say(glossOf(e))} GU{e.body.place && `, ${e.body.place}`}
          {e.simulated && <Tag kind="simulated">simulated</Tag>}
          <StrikeButton entryId={e.id} what={`earlier gloss at ${summary.angle}°, ${say(glossOf(e))} GU`} />
        </p>
      ))}
    </div>
  );
}

/** Once the part has clear on it a reading may be of either: the page does not guess which, but for who came to read the part. */
function ReadGloss({ formKey, sprayed }: { formKey: string; sprayed: boolean }) {
  const fetcher = useFetcher<FormAnswer>();
  const [params] = useSearchParams();
  const errors = fetcher.data?.errors ?? {};
  const of = params.get("of") === "part" ? "part" : sprayed ? "" : "target";
  return (
    <KeptForm fetcher={fetcher} place="gloss" className="grid grid-cols-2 items-start gap-3">
      <input type="hidden" name="formKey" value={`${formKey}-${fetcher.data?.done ?? ""}`} />
      <SelectField label="Of" name="role" defaultValue={of} errors={errors.role}>
        {of === "" && <option value="">vehicle or part?</option>}
        <option value="target">the vehicle, near the repair</option>
        <option value="part">the sprayed part</option>
      </SelectField>
      <SelectField label="Angle" name="angle" defaultValue="60">
        {GLOSS_ANGLES.map((a: GlossAngle) => (
          <option key={a} value={a}>
            {a}°
          </option>
        ))}
      </SelectField>
      <Field label="Place" name="place" placeholder="upper edge" errors={errors.place} />
      <Field label="Readings" unit="GU, spaces between" name="readings" errors={errors.readings} />
      <button className="press" data-kind="main" name="intent" value="gloss">
        Store readings
      </button>
      <StandIn>
        <button className="press" name="intent" value="meter">
          Take 5 with the stand-in meter
        </button>
        <button className="press" data-kind="quiet" name="intent" value="tile">
          Check the meter on its tile
        </button>
      </StandIn>
      <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
    </KeptForm>
  );
}
