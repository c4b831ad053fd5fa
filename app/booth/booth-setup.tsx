import { KeptForm } from "~/kit/draft/draft-form";
import { Link, useFetcher } from "react-router";
import type { BoothCandidate, BoothPlanView } from "#server/views/booth-plan-view";
import type { FormAnswer } from "~/kit/form/answer";
import { rulesTexts } from "./booth-plan.texts";
import { WET_EDGES } from "./wet-edges";
import { initial } from "~/kit/form/initial";
import { useUnits } from "~/kit/root/use-root";
import { Field, FieldErrors, SelectField, OwnInput, OwnSelect } from "~/kit/ui/field";
import { ScrollRegion } from "~/kit/ui/scroll-region";

/** Which parts, and the booth's rules. */
export function BoothSetup({ view }: { view: BoothPlanView }) {
  const units = useUnits();
  const fetcher = useFetcher<FormAnswer>();
  const errors = fetcher.data?.errors ?? {};
  const texts = rulesTexts(view, view.midnight_ms, units);
  return (
    <KeptForm fetcher={fetcher} place="booth rules" version={view.rulesVersion} className="space-y-4 border-t border-hair pt-5">
      <input type="hidden" name="intent" value="plan" />
      <input type="hidden" name="midnight" value={view.midnight_ms} />
      <h3 className="text-lg font-semibold">Parts and rules</h3>
      <ScrollRegion label="Parts">
        <table className="w-full min-w-[620px] text-left [&_td]:py-1 [&_td]:pr-3">
          <thead className="small-label border-b border-hair">
            <tr>
              <th className="py-2">Part</th>
              <th>Coats</th>
              <th>Clear</th>
              <th>Sides</th>
              <th>Wet edge with</th>
              <th>A coat takes, min</th>
            </tr>
          </thead>
          <tbody>
            {view.candidates.map((c) => (
              <PartRow key={c.panelId} {...{ c, errors }} />
            ))}
          </tbody>
        </table>
      </ScrollRegion>
      {view.candidates.length === 0 && (
        <p className="flex flex-wrap items-center gap-3 text-ink2">
          No part on the floor waits for a coat.
          <Link to="/jobs/new" className="press">
            Start a job
          </Link>
        </p>
      )}
      <FieldErrors errors={errors.part} />
      <BoothRules {...{ texts, errors }} />
      <button className="press" data-kind="main" disabled={fetcher.state !== "idle"}>
        {fetcher.state === "idle" ? "Plan these" : "Planning…"}
      </button>
      <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
    </KeptForm>
  );
}

/** A part that may take part. */
function PartRow({ c, errors }: { c: BoothCandidate; errors: Record<string, string[]> }) {
  const units = useUnits();
  return (
    <tr className="border-b border-hair">
      <td>
        <label className="flex min-h-11 cursor-pointer items-center gap-3">
          <OwnInput type="checkbox" name="part" value={c.panelId} defaultChecked={c.chosen} className="size-6 accent-[var(--glow-ink)]" />
          <b className="font-semibold">{c.name}</b>
          <span className="text-ink2">{c.vehicle}</span>
        </label>
      </td>
      <td>
        {c.coats} of {c.coatsPlanned} on
      </td>
      <td>{c.product}</td>
      <td>
        <OwnSelect name={`sides-${c.panelId}`} defaultValue={c.sides} className="field !w-20" aria-label={`Sides of ${c.name}`}>
          <option value="1">1</option>
          <option value="2">2</option>
        </OwnSelect>
      </td>
      <td>
        <OwnSelect
          name={`group-${c.panelId}`}
          defaultValue={c.group ?? ""}
          className="field !w-28"
          aria-label={`Wet edge of ${c.name} with`}
        >
          <option value="">none</option>
          {WET_EDGES.map((g) => (
            <option key={g}>{g}</option>
          ))}
        </OwnSelect>
      </td>
      <td>
        <OwnInput
          name={`spray-${c.panelId}`}
          defaultValue={initial("duration", c.typedSpray_s, units)}
          placeholder={initial("duration", c.usualSpray_s, units)}
          inputMode="decimal"
          autoComplete="off"
          className="field !w-24"
          aria-label={`A coat on ${c.name} takes, min`}
          aria-invalid={errors[`spray-${c.panelId}`] ? true : undefined}
        />
        <FieldErrors errors={errors[`spray-${c.panelId}`]} />
      </td>
    </tr>
  );
}

/** When, by how many, and with what the booth is sprayed in. */
function BoothRules({
  texts,
  errors,
}: {
  texts: Record<"start" | "end" | "painters" | "places" | "mix" | "pots" | "carry", string>;
  errors: Record<string, string[]>;
}) {
  return (
    <div className="grid grid-cols-2 items-start gap-3 sm:grid-cols-4 lg:grid-cols-7">
      <Field label="Start" type="time" name="start" defaultValue={texts.start} errors={errors.start} />
      <Field label="Booth free until" type="time" name="end" defaultValue={texts.end} errors={errors.end} hint="empty: no end" />
      <SelectField label="Painters" name="painters" defaultValue={texts.painters} errors={errors.painters}>
        {[1, 2, 3, 4].map((n) => (
          <option key={n}>{n}</option>
        ))}
      </SelectField>
      <Field label="Places" inputMode="numeric" name="places" defaultValue={texts.places} errors={errors.places} hint="parts at a time" />
      <Field label="Mixing" unit="min" name="mix" defaultValue={texts.mix} errors={errors.mix} />
      <Field
        label="Pots at most"
        inputMode="numeric"
        name="pots"
        defaultValue={texts.pots}
        errors={errors.pots}
        hint="empty: as many as it takes"
      />
      <Field label="Carry out after" unit="min" name="carry" defaultValue={texts.carry} errors={errors.carry} />
    </div>
  );
}
