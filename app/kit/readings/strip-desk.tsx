import { useFetcher } from "react-router";
import { showWithUncertainty } from "#core/kernel/units/format";
import type { FormAnswer } from "~/kit/form/answer";
import { KeptForm } from "~/kit/draft/draft-form";
import { usePanel } from "~/kit/panel/use-panel";
import { useUnits } from "~/kit/root/use-root";
import { StrikeButton } from "~/kit/shell/strike-button";
import { Field, FieldErrors } from "~/kit/ui/field";
import { WorkingButton } from "~/kit/ui/figure";
import { stripWorking } from "./strip.words";

const NAMES = { before: "before clear", after: "after clear" } as const;

/** Where no gauge reads on the part: a metal strip beside it, read before clear and after. */
export function StripDesk() {
  const { view } = usePanel();
  const units = useUnits();
  const { strips, strip } = view.state;
  const shown = strip && showWithUncertainty("film", strip.clear_m, strip.u_m, units);
  return (
    <section aria-labelledby="strip-title" className="space-y-4" data-testid="strip-desk">
      <div>
        <h3 id="strip-title" className="text-lg font-semibold">
          A metal strip beside it
        </h3>
        <p className="max-w-[65ch] text-ink2">
          No magnetic gauge reads on plastic. Tape a strip of sheet metal beside the part, spray it with the part, and read it before the
          clear and when the clear is hard. Without one the clear is predicted from the logged coats, and every verdict is wider.
        </p>
      </div>
      <div className="grid gap-5 sm:grid-cols-2">
        {(["before", "after"] as const).map((phase) => (
          <StripForm key={phase} phase={phase} />
        ))}
      </div>
      {strips.length > 0 && (
        <ul className="border-t border-hair" aria-label="Strip as read">
          {strips.map((s) => (
            <li key={s.id} className="flex items-center justify-between gap-3 border-b border-hair">
              <span>
                Strip {NAMES[s.body.phase]}: {s.body.readings.map((r) => `${r.entered} ${r.unit}`).join(", ")}
              </span>
              <StrikeButton entryId={s.id} what={`the strip ${NAMES[s.body.phase]}`} />
            </li>
          ))}
        </ul>
      )}
      {strip && shown && (
        <WorkingButton working={stripWorking(strip, units)} label="Show the working of the clear by the strip">
          <span>
            Clear by the strip{" "}
            <b className="font-semibold">
              {shown.text} {shown.unit}
            </b>
          </span>
        </WorkingButton>
      )}
    </section>
  );
}

function StripForm({ phase }: { phase: "before" | "after" }) {
  const { view } = usePanel();
  const units = useUnits();
  const fetcher = useFetcher<FormAnswer>();
  const errors = fetcher.data?.errors ?? {};
  return (
    <KeptForm fetcher={fetcher} place={`strip ${phase}`} className="flex items-end gap-3">
      <input type="hidden" name="intent" value="strip" />
      <input type="hidden" name="phase" value={phase} />
      <input type="hidden" name="formKey" value={`${view.formKey}-strip-${phase}`} />
      <Field
        className="flex-1"
        label={`Strip ${NAMES[phase]}`}
        unit={`${units.film}, spaces between`}
        name="value"
        inputMode="decimal"
        errors={errors.value}
      />
      <button className="press" disabled={fetcher.state !== "idle"}>
        Store<span className="sr-only"> the strip {NAMES[phase]}</span>
      </button>
      <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
    </KeptForm>
  );
}
