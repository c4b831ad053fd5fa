import { useCallback, useRef, useState } from "react";
import { useFetcher } from "react-router";
import { PHASES, type Phase } from "#core/ledger/kinds";
import { placeInWords } from "#core/panel/shapes";
import { show, showFilm } from "#core/units/format";
import { METRIC } from "#core/units/quantities";
import type { FormAnswer } from "~/forms/answer";
import { useUnits } from "~/lib/use-root";
import { usePanel } from "~/routes/panel/layout";
import { Field, SelectField } from "~/ui/field";
import { Tag } from "~/ui/tag";
import { ImportReadings } from "./import-readings";
import { PanelDrawing, type SpotMark } from "./panel-drawing";
import { useGauge } from "./use-gauge";
import { type RefusedReading, useReadingQueue } from "./use-reading-queue";

const SPOT_COUNTS = [5, 8, 14, 24] as const;

/**
 * Readings typed spot by spot: Enter saves and goes on, so a gauge that types like a keyboard works as it is; a bridged gauge may send
 * them, and the stand-in reads a spot at a press.
 */
export function ReadingDesk({ phase }: { phase: Phase }) {
  const { view } = usePanel();
  const units = useUnits();
  const { spotPlan, state, readingsPerSpot, panel } = view;
  const standIn = useFetcher<FormAnswer>();
  const [chosen, setChosen] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [gauge, setGauge] = useState(state.gaugeChecks.at(-1)?.body.gauge ?? "");
  const [template, setTemplate] = useState(false);
  const [listening, setListening] = useState(false);
  const input = useRef<HTMLInputElement>(null);
  const onRefused = useCallback((refused: RefusedReading) => {
    setProblem(refused.message);
    setChosen(refused.spot);
    if (input.current && input.current.value === "") input.current.value = refused.value; // nothing typed is lost
  }, []);
  const { waiting, saved, count, take } = useReadingQueue(phase, onRefused);

  const current =
    (chosen && count(chosen) < readingsPerSpot ? chosen : null) ?? spotPlan.find((s) => count(s.name) < readingsPerSpot)?.name ?? null;
  const shownSpot = chosen ?? current;
  // Only what the server has acknowledged counts as read.
  const read = spotPlan.filter((s) => saved(s.name) >= readingsPerSpot).length;

  const put = (value: string, how: { units: typeof units; gauge: string }) => {
    if (!shownSpot || value === "") return;
    setProblem(null);
    if (take(shownSpot, count(shownSpot), value, { ...how, template }) >= readingsPerSpot) setChosen(null);
  };
  const takeTyped = () => {
    put(input.current?.value.trim() ?? "", { units, gauge });
    if (input.current) input.current.value = "";
  };
  useGauge(listening, ({ total_m, device }) => put(show("film", total_m, METRIC, 1).text, { units: METRIC, gauge: device }));

  const marks = spotPlan.map((s): SpotMark => {
    const film = state.spots.find((p) => p.name === s.name);
    const mean = film?.films[phase]?.film.mean_m;
    return {
      name: s.name,
      at: s.at,
      text: mean === undefined ? s.name : showFilm(mean, units).text,
      state: s.name === shownSpot ? "now" : mean === undefined ? "open" : "read",
    };
  });
  const spot = spotPlan.find((s) => s.name === shownSpot);
  const left = readingsPerSpot - (shownSpot ? count(shownSpot) : 0);
  return (
    <div className="mt-3 grid gap-x-8 gap-y-5 md:grid-cols-[1.3fr_1fr]">
      <PanelDrawing
        shape={panel.shape}
        spots={marks}
        onSpot={setChosen}
        label={`${panel.name}: ${read} of ${spotPlan.length} spots read ${PHASES[phase]}`}
      />
      <div className="space-y-4">
        <p className="flex flex-wrap items-center gap-2">
          <span className="text-[27px] font-semibold tracking-tight" data-testid="spots-read">
            {read} of {spotPlan.length}
          </span>
          <span className="text-ink2">spots read {PHASES[phase]}</span>
          {state.spots.some((s) => s.films[phase]?.simulated) && <Tag kind="simulated">simulated</Tag>}
        </p>
        <div>
          <label htmlFor={`reading-${phase}`} className="mb-1 block font-semibold">
            {spot ? `Spot ${spot.name}, ${placeInWords(spot.at, panel.shape)}` : "Every spot is read"}
          </label>
          <div className="flex gap-2">
            <input
              ref={input}
              id={`reading-${phase}`}
              className="field !text-[22px] font-semibold"
              inputMode="decimal"
              autoComplete="off"
              enterKeyHint="next"
              placeholder={units.film}
              aria-describedby={`reading-${phase}-note`}
              aria-invalid={problem ? true : undefined}
              onKeyDown={(e) => {
                if (e.key !== "Enter") return;
                e.preventDefault();
                takeTyped();
              }}
            />
            <button type="button" className="press" data-kind="main" onClick={takeTyped}>
              Next
            </button>
          </div>
          <p id={`reading-${phase}-note`} className="mt-1 min-h-5 text-[13px] text-ink2" aria-live="polite">
            {problem ? (
              <span role="alert" className="font-medium text-stop-ink">
                {problem}
              </span>
            ) : waiting ? (
              `Saving ${waiting}…`
            ) : spot ? (
              `${Math.max(left, 0)} of ${readingsPerSpot} readings to go here; total film in ${units.film}`
            ) : (
              "Tap a spot to read it again"
            )}
          </p>
        </div>
        <standIn.Form method="post" className="flex flex-wrap gap-2">
          <input type="hidden" name="intent" value="stand-in" />
          <input type="hidden" name="phase" value={phase} />
          {template && <input type="hidden" name="template" value="on" />}
          <button className="press" name="spot" value={spot?.name ?? ""} disabled={standIn.state !== "idle" || !spot}>
            {`Take ${readingsPerSpot} here with the stand-in gauge`}
          </button>
          <button className="press" name="spot" value="" disabled={standIn.state !== "idle"}>
            All spots
          </button>
          <ImportReadings phase={phase} />
        </standIn.Form>
        <div className="flex flex-wrap gap-1.5" role="group" aria-label="Choose a spot">
          {spotPlan.map((s) => (
            <button
              key={s.name}
              type="button"
              aria-pressed={s.name === shownSpot}
              onClick={() => {
                setChosen(s.name);
                input.current?.focus();
              }}
              className="press !min-w-11 !px-2 aria-pressed:bg-glow-wash"
            >
              {s.name}
              {count(s.name) >= readingsPerSpot && <span className="sr-only"> read</span>}
            </button>
          ))}
        </div>
        <details className="rounded-press border border-hair px-3">
          <summary className="min-h-11 cursor-pointer content-center font-semibold">Gauge, places, template</summary>
          <div className="grid grid-cols-2 gap-3 pb-3">
            <Field
              label="Gauge"
              value={gauge}
              onChange={(e) => setGauge(e.target.value)}
              maxLength={40}
              hint="the same name before and after clear cancels its error"
            />
            <SpotCount />
            <label className="col-span-2 flex min-h-11 items-center gap-3">
              <input type="checkbox" className="h-5 w-5" checked={template} onChange={(e) => setTemplate(e.target.checked)} />
              Found again by a mark or a template (within 3 mm)
            </label>
            <label className="col-span-2 flex min-h-11 items-center gap-3">
              <input type="checkbox" className="h-5 w-5" checked={listening} onChange={(e) => setListening(e.target.checked)} />
              Take what a bridged gauge sends
            </label>
          </div>
        </details>
      </div>
    </div>
  );
}

/** How many places the panel is read at. */
function SpotCount() {
  const { view } = usePanel();
  const fetcher = useFetcher<FormAnswer>();
  const counts = [...new Set([...SPOT_COUNTS, view.spotCount])].sort((a, b) => a - b);
  return (
    <SelectField
      label="Places to read"
      value={String(view.spotCount)}
      disabled={fetcher.state !== "idle"}
      onChange={(e) => void fetcher.submit({ intent: "spots", count: e.target.value }, { method: "post" })}
    >
      {counts.map((n) => (
        <option key={n} value={n}>
          {n}
        </option>
      ))}
    </SelectField>
  );
}
