import { More } from "~/kit/ui/more";
import { useEffect, useState } from "react";
import { useFetcher } from "react-router";
import { UNDER_STEPS, USUAL_FILM_M, type UnderField, underSteps } from "#core/models/prep/under-clear";
import { show, showFilm } from "#core/kernel/units/format";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import { noGaugeReads } from "#core/panel/brief";
import { colourBelow } from "#core/panel/layer-coats";
import { KeptForm } from "~/kit/draft/draft-form";
import type { FormAnswer } from "~/kit/form/answer";
import { usePanel } from "~/kit/panel/use-panel";
import { useUnits } from "~/kit/root/use-root";
import { StrikeButton } from "~/kit/shell/strike-button";
import { Field, FieldErrors } from "~/kit/ui/field";
import { InUnits } from "~/kit/ui/in-units";
import { Tag } from "~/kit/ui/tag";
import { cleanersFor } from "~/kit/words/cleaners";

/** What is done below the clear, step by step, each with its reason. */
export function BelowSteps() {
  const { view } = usePanel();
  const units = useUnits();
  const log = view.state.under;
  const [open, setOpen] = useState<string | null>(null);
  const base = colourBelow(view.state.below);
  const askOf = (s: (typeof UNDER_STEPS)[number]) =>
    s.id === "sand"
      ? s.ask.replace("the way's last paper", `P${view.job.way.lastPaper}`)
      : s.id === "clean"
        ? cleanersFor(base?.sheet.carrier ?? null)
        : s.ask;
  return (
    <ul className="mt-6 border-t border-hair">
      {underSteps({ plastic: noGaugeReads(view.panel.substrate), coloured: view.state.coloured }).map((s) => {
        const entries = log.filter((u) => u.body.step === s.id);
        return (
          <li key={s.id} className="border-b border-hair py-2" data-testid={`under-${s.id}`}>
            <div className="flex flex-wrap items-center justify-between gap-x-6 gap-y-1">
              <div className="min-w-0 flex-1 basis-72">
                <More label={s.name}>
                  <p className="text-ink2">
                    <InUnits>{askOf(s)}</InUnits>. Why: {s.why}.
                  </p>
                </More>
              </div>
              {entries.map((e) => (
                <span key={e.id} className="flex items-center gap-2">
                  <Tag kind="good">{summary(e.body, units)}</Tag>
                  <StrikeButton entryId={e.id} what={s.name.toLowerCase()} />
                </span>
              ))}
              <button type="button" className="press" aria-expanded={open === s.id} onClick={() => setOpen(open === s.id ? null : s.id)}>
                {entries.length > 0 ? "Once more" : "Log it"}
                <span className="sr-only"> {s.name}</span>
              </button>
            </div>
            {open === s.id && <StepForm step={s} onDone={() => setOpen(null)} />}
          </li>
        );
      })}
    </ul>
  );
}

type UnderBody = ReturnType<typeof usePanel>["view"]["state"]["under"][number]["body"];
function summary(b: UnderBody, units: UnitPreferences): string {
  const parts = [
    b.grit !== null ? `P${b.grit}` : null,
    b.coats !== null ? `${b.coats} coats` : null,
    b.film_m !== null ? `${showFilm(b.film_m, units).text} ${units.film}` : null,
    b.pressure_Pa !== null ? `${show("pressure", b.pressure_Pa, units).text} ${units.pressure}` : null,
    b.reach_m !== null ? `${show("length", b.reach_m, units).text} ${units.length}` : null,
    b.note || null,
  ].filter(Boolean);
  return parts.length > 0 ? parts.join(", ") : "done";
}

function StepForm({ step, onDone }: { step: (typeof UNDER_STEPS)[number]; onDone: () => void }) {
  const units = useUnits();
  const fetcher = useFetcher<FormAnswer>();
  const errors = fetcher.data?.ok === false ? fetcher.data.errors : {};
  const done = fetcher.state === "idle" && fetcher.data?.ok === true;
  useEffect(() => {
    if (done) onDone();
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once, when the answer has come
  }, [done]);
  const asks: readonly UnderField[] = step.asks;
  const usual = USUAL_FILM_M[step.id];
  const fields: Record<UnderField, { label: string; unit?: string; hint?: string }> = {
    grit: { label: "Last grit", hint: "P number" },
    coats: { label: "Coats" },
    film: { label: "Film in all", unit: units.film, ...(usual ? { hint: `empty: usual ${showFilm(usual[0], units).text}` } : {}) },
    pressure: { label: "Pressure", unit: units.pressure },
    reach: { label: step.id === "strip" ? "Beyond the edge" : "Blend reach", unit: units.length },
  };
  return (
    <KeptForm fetcher={fetcher} place={`below ${step.id}`} className="mt-2 flex flex-wrap items-start gap-3">
      <input type="hidden" name="intent" value="under" />
      <input type="hidden" name="step" value={step.id} />
      {asks.map((a) => (
        <Field key={a} className="w-36" inputMode="decimal" name={a} errors={errors[a]} {...fields[a]} />
      ))}
      <Field className="min-w-48 flex-1" label="Note" name="note" errors={errors.note} />
      <button className="press sm:mt-[23px]" data-kind="main" disabled={fetcher.state !== "idle"}>
        Done
      </button>
      <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
    </KeptForm>
  );
}
