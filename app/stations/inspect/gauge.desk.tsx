import { More } from "~/kit/ui/more";
import { KeptForm } from "~/kit/draft/draft-form";
import { hourText } from "~/kit/words/when";
import { useFetcher, type FetcherWithComponents } from "react-router";
import { foilSuits, setupUncertainty, type GaugeCheckResult } from "#core/models/film/gauge-check";
import { DEFAULT_GAUGE, pooledRepeatability } from "#core/models/film/gauge";
import { judgeCheck } from "#core/panel/gauge-sessions";
import { COVERAGE, show, showFilm } from "#core/kernel/units/format";
import type { FormAnswer } from "~/kit/form/answer";
import { initial } from "~/kit/form/initial";
import { useUnits } from "~/kit/root/use-root";
import { usePanel } from "~/kit/panel/use-panel";
import { StandIn } from "~/kit/shell/stand-in";
import { Field, FieldErrors, OwnInput } from "~/kit/ui/field";
import { Figure } from "~/kit/ui/figure";
import { StrikeButton } from "~/kit/shell/strike-button";
import { Tag } from "~/kit/ui/tag";
import { repeatabilityWorking, setupWorking } from "./gauge.words";
import { InUnits } from "~/kit/ui/in-units";
import type { EntryOf } from "#core/record/entry";

/** A foil near the film to be read; with no reading yet, what refinished panels usually carry. */
const USUAL_TOTAL_M = 150e-6;

/** Set-up check of the gauge: zero and foil, drift, what it repeats to on this panel. */
export function GaugeDesk() {
  const { view } = usePanel();
  const units = useUnits();
  const { state } = view;
  const fetcher = useFetcher<FormAnswer>();
  const errors = fetcher.data?.errors ?? {};
  const totals = state.spots.flatMap((s) => ((s.films.after ?? s.films.before) ? [(s.films.after ?? s.films.before)!.film.mean_m] : []));
  const expected_m = totals.length ? totals.reduce((a, b) => a + b, 0) / totals.length : USUAL_TOTAL_M;
  const last = state.gaugeChecks.at(-1);
  const groups = state.spots.flatMap((s) => Object.values(s.films).map((f) => f.readings_m));
  const repeat = pooledRepeatability(groups);
  const fine = (m: number) => {
    const shown = show("film", COVERAGE * m, units, units.film === "µm" ? 1 : 2);
    return { ...shown, text: `± ${shown.text}` };
  };
  const film = (m: number) => `${showFilm(m, units).text} ${units.film}`;
  const judged = last && judgeCheck(last, state.gaugeChecks);
  return (
    <>
      <h2 className="max-w-[26em] text-[25px] leading-[1.12] sm:text-[31px] font-semibold tracking-tight">
        {judged && last
          ? !judged.agree
            ? "The readings of the set-up lie far apart: take them again."
            : last.body.correct && !judged.sets
              ? "Too far off to be set right: another foil, or a gauge for repair. Its readings stand as they are."
              : judged.drift?.drifted
                ? "The gauge has drifted since its last check: set it up again."
                : judged.within
                  ? "The gauge reads zero and foil as it should."
                  : "The gauge reads outside its own limits: set it up before you trust it."
          : "Check the gauge on bare metal and on a foil before you read."}
      </h2>
      <div className="mt-6 grid gap-x-10 gap-y-6 md:grid-cols-2">
        <CheckForm {...{ fetcher, last, errors, film, expected_m }} />
        <div className="space-y-5">
          {last && judged && <Judged {...{ fine, judged, last, expected_m, film }} />}
          <Figure
            label="repeats to, on this panel"
            size="middle"
            shown={fine(repeat.repeatability_m)}
            note={
              groups.some((g) => g.length > 1)
                ? `learnt from ${groups.length} spots read more than once`
                : "the usual figure; it is learnt from repeated readings"
            }
            working={repeatabilityWorking(repeat, groups, units)}
          />
          <p className="text-ink2">
            {state.sessions.correlation > 0
              ? "Before and after clear count as one gauge and set-up: most of its error cancels in the difference."
              : "Before and after clear were read with different gauges or set-ups: the gauge's error does not cancel, and the clear is less sure."}
          </p>
          {state.gaugeChecks.length > 0 && (
            <ul className="border-t border-hair">
              {state.gaugeChecks.map((c) => (
                <li key={c.id} className="flex flex-wrap items-center justify-between gap-2 border-b border-hair">
                  <span>
                    <b className="font-semibold">{c.body.gauge}</b>{" "}
                    <span className="text-ink2">
                      {hourText(c.at_ms)}, zero {c.body.zero.map((r) => r.entered).join(" ")}, foil {film(c.body.foil_m)} read as{" "}
                      {c.body.onFoil.map((r) => r.entered).join(" ")}
                    </span>
                  </span>
                  <StrikeButton entryId={c.id} what={`the check of ${c.body.gauge}`} />
                </li>
              ))}
            </ul>
          )}
        </div>
      </div>
      <More label="What a gauge is good for" className="mt-4">
        <p className="max-w-[75ch] text-[13px] text-ink2">
          A gauge's own limits here are ± ({film(DEFAULT_GAUGE.constant_m)} + {100 * DEFAULT_GAUGE.proportional} % of the film), a usual
          figure; its paper may say better. <InUnits>Read three times at a place, within 4 cm.</InUnits>
        </p>
      </More>
    </>
  );
}

/** Zero and foil, as the gauge reads them. */
function CheckForm({
  fetcher,
  last,
  errors,
  film,
  expected_m,
}: {
  fetcher: FetcherWithComponents<FormAnswer>;
  last: EntryOf<"gaugeCheck"> | undefined;
  errors: Record<string, string[]>;
  film: (m: number) => string;
  expected_m: number;
}) {
  const { view } = usePanel();
  const units = useUnits();
  return (
    <KeptForm fetcher={fetcher} place="gauge check" className="grid grid-cols-2 content-start gap-3">
      <input type="hidden" name="formKey" value={`${view.formKey}-gauge`} />
      <Field className="col-span-2" label="Gauge" name="gauge" defaultValue={last?.body.gauge ?? ""} maxLength={40} errors={errors.gauge} />
      <Field
        label="Foil"
        unit={units.film}
        name="foil"
        defaultValue={last ? initial("film", last.body.foil_m, units) : ""}
        hint={`one near ${film(expected_m)} serves best`}
        errors={errors.foil}
      />
      <Field
        label="Foil, give or take"
        unit={units.film}
        name="uFoil"
        defaultValue={initial("film", last?.body.uFoil_m ?? 1e-6, units)}
        errors={errors.uFoil}
      />
      <Field label="On bare metal" unit={units.film} name="zero" hint="three readings, spaces between" errors={errors.zero} />
      <Field label="On the foil" unit={units.film} name="onFoil" hint="three readings, spaces between" errors={errors.onFoil} />
      <label className="col-span-2 flex min-h-11 items-center gap-3">
        <OwnInput type="checkbox" name="correct" className="h-5 w-5" />
        This gauge cannot be set: correct its readings from now on by these two points
      </label>
      <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
      <div className="col-span-2 flex flex-wrap gap-2">
        <button className="press" data-kind="main" disabled={fetcher.state !== "idle"}>
          Keep this check
        </button>
        <StandIn>
          <button className="press" name="intent" value="stand-in" disabled={fetcher.state !== "idle"}>
            Check the practice (simulated) gauge
          </button>
        </StandIn>
      </div>
    </KeptForm>
  );
}

/** How far it is off, and how well it repeats. */
function Judged({
  fine,
  judged,
  last,
  expected_m,
  film,
}: {
  fine: (m: number) => { text: string; unit: string };
  judged: GaugeCheckResult;
  last: EntryOf<"gaugeCheck">;
  expected_m: number;
  film: (m: number) => string;
}) {
  const units = useUnits();
  return (
    <>
      <Figure
        label="from the set-up, at the film read here"
        shown={fine(setupUncertainty(judged, last.body, expected_m))}
        note={
          foilSuits(last.body.foil_m, expected_m)
            ? "the foil suits this film"
            : `the foil is far from ${film(expected_m)}: take one nearer to it`
        }
        working={setupWorking(last.body, judged, expected_m, units)}
        {...(foilSuits(last.body.foil_m, expected_m) ? {} : { tone: "amber" as const })}
      />
      <p className="flex flex-wrap items-center gap-2">
        <Tag kind={judged.within ? "good" : "stop"}>{judged.within ? "Within its limits" : "Outside its limits"}</Tag>
        {judged.drift && <Tag kind={judged.drift.drifted ? "caution" : "good"}>{judged.drift.drifted ? "Drifted" : "No drift"}</Tag>}
        {last.simulated && <Tag kind="simulated">simulated</Tag>}
        {last.body.correct && judged.sets && <Tag kind="open">Readings are corrected</Tag>}
      </p>
    </>
  );
}
