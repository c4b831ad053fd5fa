import { InProgress } from "~/kit/ui/in-progress";
import { noGaugeReads } from "#core/panel/brief";
import { inferredWords } from "~/kit/words/how-words";
import { riskOf } from "#core/judge/chance-at";
import { memo, useDeferredValue, useMemo, useState } from "react";
import { useFetcher } from "react-router";
import { correctionSchool, type CorrectionSchool } from "#core/models/correction/schools";
import type { PanelMap } from "#core/judge/panel-map";
import { WHOLE_PANEL, faultsHolding } from "#core/panel/fault-holds";
import { blockedBy, blockedVerdict, type BlockedBy } from "#core/judge/blocked-by";
import { DEFAULT_TAPE_M, VERDICT_LIMITS } from "#core/judge/limits";
import type { Point } from "#core/kernel/geometry/geometry";
import { placeInWords } from "#core/kernel/geometry/place-in-words";
import { COVERAGE, show, showChance, showFilm, showWithUncertainty } from "#core/kernel/units/format";
import type { FormAnswer } from "~/kit/form/answer";
import { useAssessment, type AssessmentRun } from "~/kit/run/use-assessment";
import { useUnits } from "~/kit/root/use-root";
import { HeldLines } from "~/kit/panel/held-lines";
import { useCureStatus } from "~/kit/panel/use-cure-status";
import { usePanel } from "~/kit/panel/use-panel";
import { usePreview } from "~/kit/panel/use-preview";
import { Toggle } from "~/kit/ui/toggle";
import { Figure, type Working } from "~/kit/ui/figure";
import { FilmSlider } from "~/kit/ui/film-slider";
import { Tag } from "~/kit/ui/tag";
import { mapWorking, settleSentence } from "./film-map.words";
import { VERDICT_WORDS, safeLabel, showSafe } from "~/kit/words/verdict";
import { AcceptanceLabel } from "./acceptance-label";
import { cellAt, stepsOf } from "~/kit/panel/bands";
import { type RampLayer, RampScale } from "~/kit/panel/ramp";
import { FilmMapDrawing } from "./film-map-drawing";
import { usePanelMap } from "./use-panel-map";
import { riskAt, risksOf } from "./map-picture";
import { inUnits } from "#core/kernel/units/in-units";
import type { CureStatus } from "#core/course/cure-status";
import type { Removal } from "#core/models/correction/removal-plan";
import type { RunState } from "~/kit/run/use-run";

const MOST_REMOVAL_M = 40e-6;
const RISK_STEPS = [0.001, 0.005, 0.02, 0.05, 0.1, 0.25, 0.5];
const COLOUR_STEPS = 7;

/** How much clear, where, how sure; what a removal would risk; where to read next. */
export function FilmMapDesk() {
  const { view } = usePanel();
  const units = useUnits();
  const { panel, state, job, floor_m } = view;
  const { usual, input, map, run, reason } = usePanelMap();
  const school = correctionSchool(job.way.correction);
  const blind = noGaugeReads(panel.substrate);
  const [removal_m, setRemoval] = useState(usual.removal_m);
  const [layer, setLayer] = useState<RampLayer>("clear");
  const [picked, setPicked] = useState<Point | null>(null);
  // Figure and verdict follow the hand at once; drawing, section and working a frame later, so that a slow tablet keeps up.
  const calm_m = useDeferredValue(removal_m);
  const panel_m = { removal_m: calm_m, u_m: input.uRel * calm_m, rim_m: input.rim_m };
  const settle = useAssessment(
    map ? { film: input.film, hypotheses: input.hypotheses, work: { panel: panel_m, local: [], floor_m } } : null,
  );
  const film = useCureStatus();
  const held = useMemo(
    () => blockedBy({ finish: job.finish, cured: film.cured, account: state, faults: faultsHolding(state, "paper", WHOLE_PANEL) }),
    [job.finish, film.cured, state],
  );
  const risk = map && riskOf(map, removal_m);
  const answer = risk && { ...risk, verdict: blockedVerdict(risk.verdict, held) };
  const u_removal_m = input.uRel * calm_m;
  const working = map && mapWorking(map, { removal_m: calm_m, u_removal_m, floor_m, sessions: state.sessions }, units);
  const at = picked ?? map?.thinnest.at ?? null;
  const cell = map && at ? cellAt(map, at) : null;
  const here = map && cell !== null ? { clear_m: map.mean_m[cell]!, u_m: map.sd_m[cell]! } : null;
  const hereWords = at ? placeInWords(at, panel.shape) : "";
  usePreview({
    ...(calm_m > 0 ? { removal: { removal_m: calm_m, u_m: u_removal_m } } : {}),
    ...(here && picked ? { here: { ...here, caption: `At the ${hereWords}` } } : {}),
  });
  return (
    <>
      <Heading {...{ answer, reason, map, run }} />
      {map && answer && working && (
        <div className="grid gap-x-8 gap-y-5 lg:grid-cols-[1.5fr_1fr]">
          <MapAndPlace {...{ layer, setLayer, here, at, picked, hereWords, map, calm_m, cell, u_removal_m, setPicked, blind }} />
          <Side {...{ removal_m, setRemoval, school, usual, answer, held, film, working, map, blind, settle }} />
        </div>
      )}
    </>
  );
}

/** What the map says, in a sentence. */
function Heading({
  answer,
  reason,
  map,
  run,
}: {
  answer: { verdict: "safe" | "caution" | "stop"; cutChance: number; thinChance: number } | null;
  reason: string | null;
  map: PanelMap | null;
  run: RunState;
}) {
  const { view } = usePanel();
  const units = useUnits();
  const { panel, state } = view;
  return (
    <div aria-live="polite" data-testid="map-verdict" data-verdict={answer?.verdict ?? "waiting"}>
      <h2 className="min-h-[2.24em] max-w-[26em] text-[25px] leading-[1.12] sm:text-[31px] font-semibold tracking-tight">
        {reason ??
          (map && answer ? (
            <>
              {showWithUncertainty("film", map.mean.clear_m, map.mean.u_m, units).text} {units.film} of clear on average,{" "}
              <em className="text-glow-ink not-italic">
                {showWithUncertainty("film", map.thinnest.clear_m, map.thinnest.u_m, units).text} at the{" "}
                {placeInWords(map.thinnest.at, panel.shape)}.
              </em>
            </>
          ) : (
            "Working out the film between the spots."
          ))}
      </h2>
      <div className="mt-1 mb-3 flex min-h-11 flex-wrap items-center gap-2">
        {map?.inferred ? (
          <Tag kind="caution">{inferredWords(view.state.film.how)}</Tag>
        ) : (
          map && <Tag kind="good">Measured before and after</Tag>
        )}
        {state.simulated && <Tag kind="simulated">simulated readings</Tag>}
        {run.busy && <InProgress share={run.progress} label="Working out the map" onStop={run.cancel} />}
        {run.fault && <p className="text-stop-ink">{run.fault}</p>}
      </div>
    </div>
  );
}

/** The map, and what is known of a place. */
function MapAndPlace({
  layer,
  setLayer,
  here,
  at,
  picked,
  hereWords,
  map,
  calm_m,
  cell,
  u_removal_m,
  setPicked,
  blind,
}: {
  layer: RampLayer;
  setLayer: React.Dispatch<React.SetStateAction<RampLayer>>;
  here: { clear_m: number; u_m: number } | null;
  at: Point | null;
  picked: Point | null;
  hereWords: string;
  map: PanelMap;
  calm_m: number;
  cell: number | null;
  u_removal_m: number;
  setPicked: React.Dispatch<React.SetStateAction<Point | null>>;
  blind: boolean;
}) {
  const { view } = usePanel();
  const units = useUnits();
  const { floor_m } = view;
  return (
    <div>
      <Toggle
        label="What the map shows"
        value={layer}
        onChange={(v) => setLayer(v as RampLayer)}
        options={[
          { value: "clear", name: `Clear, ${units.film}` },
          { value: "doubt", name: `Doubt, ± ${units.film}` },
          { value: "risk", name: "Risk below the minimum" },
        ]}
      />
      <p className="mt-2 min-h-12 text-ink2" data-testid="place-figure" aria-live="polite">
        {here && at ? (
          <>
            {picked ? `At the ${hereWords}` : `At its thinnest, ${hereWords}`}:{" "}
            <b className="font-semibold text-ink">
              {showWithUncertainty("film", here.clear_m, here.u_m, units).text} {units.film}
            </b>
            {map.inferred ? " (inferred)" : ""}; after {showFilm(calm_m, units).text} {units.film} off,{" "}
            {showChance(riskAt(map, cell!, { removal_m: calm_m, u_removal_m, floor_m }))} to be below the minimum clear of{" "}
            {showFilm(floor_m, units).text}.
          </>
        ) : (
          "Tap a place to read it off."
        )}
      </p>
      <div className="mt-1">
        <Layered
          layer={layer}
          map={map}
          removal_m={layer === "risk" ? calm_m : 0}
          u_removal_m={u_removal_m}
          picked={picked}
          onPick={setPicked}
        />
      </div>
      {map.inferred && !blind && (
        <p className="text-amber-ink">
          Without readings before clear the layers below are guessed. More readings after clear cannot mend that.
        </p>
      )}
    </div>
  );
}

/** What may come off, and what to read next. */
function Side({
  removal_m,
  setRemoval,
  school,
  usual,
  answer,
  held,
  film,
  working,
  map,
  blind,
  settle,
}: {
  removal_m: number;
  setRemoval: React.Dispatch<React.SetStateAction<number>>;
  school: CorrectionSchool;
  usual: Removal;
  answer: { verdict: "safe" | "caution" | "stop"; cutChance: number; thinChance: number };
  held: readonly BlockedBy[];
  film: CureStatus;
  working: Working;
  map: PanelMap;
  blind: boolean;
  settle: AssessmentRun;
}) {
  const { view } = usePanel();
  const units = useUnits();
  const { floor_m } = view;
  return (
    <div className="space-y-5">
      <FilmSlider
        label="Take off"
        value_m={removal_m}
        most_m={MOST_REMOVAL_M}
        onChange={setRemoval}
        note={`${school.name} takes ${showWithUncertainty("film", usual.removal_m, usual.u_m, units).text} ${units.film}`}
      />
      <div className="flex min-h-11 items-center gap-3">
        <Tag kind={VERDICT_WORDS[answer.verdict].tag}>{VERDICT_WORDS[answer.verdict].word}</Tag>
        <span className="text-ink2">
          for the panel but its taped rim of {show("length", DEFAULT_TAPE_M, units).text} {units.length}
        </span>
      </div>
      <HeldLines view={view} held={held} left_s={film.left_s} />
      <Figure
        label="chance of cutting through"
        size="middle"
        shown={{ text: showChance(answer.cutChance), unit: "" }}
        note={inUnits("any place below 8 µm; a guard, not a promise", units)}
        working={working}
        {...(answer.cutChance > VERDICT_LIMITS.caution.cut ? { tone: "stop" as const } : {})}
      />
      <Figure
        label="chance of too little left"
        size="middle"
        shown={{ text: showChance(answer.thinChance), unit: "" }}
        note={`more than 2 % of it below the minimum clear of ${showFilm(floor_m, units).text} ${units.film}`}
        working={working}
        {...(answer.thinChance > VERDICT_LIMITS.caution.thin ? { tone: "stop" as const } : {})}
      />
      <Figure
        label={safeLabel(map.safe_m, { thinnest_m: map.thinnest.clear_m, floor_m, held: held.length > 0 })}
        shown={showSafe(map.safe_m, units)}
        note="19 times in 20 the minimum holds"
        working={working}
      />
      <ReadNext
        next={blind ? null : map.next}
        sentence={settle.busy ? "Looking how many readings would settle it…" : settleSentence(settle.result)}
      />
      <AcceptanceLabel />
    </div>
  );
}

/** A layer of the map; only the risk follows the slider. */
const Layered = memo(function Layered({
  layer,
  map,
  removal_m,
  u_removal_m,
  picked,
  onPick,
}: {
  layer: RampLayer;
  map: PanelMap;
  removal_m: number;
  u_removal_m: number;
  picked: Point | null;
  onPick: (at: Point) => void;
}) {
  const { view } = usePanel();
  const units = useUnits();
  const { panel, state, floor_m } = view;
  // The chance follows the slider at once, the picture a moment later: sliding stays smooth.
  const shown_m = useDeferredValue(removal_m);
  const cells = useMemo(
    () =>
      layer === "clear"
        ? map.mean_m
        : layer === "doubt"
          ? map.sd_m.map((u) => COVERAGE * u)
          : risksOf(map, { removal_m: shown_m, u_removal_m, floor_m }),
    [layer, map, shown_m, u_removal_m, floor_m],
  );
  const steps = useMemo(() => {
    if (layer === "risk") return RISK_STEPS;
    const unit = units.film === "µm" ? 1e-6 : 25.4e-6;
    return stepsOf(Math.min(...cells), Math.max(...cells), unit, COLOUR_STEPS);
  }, [layer, cells, units.film]);
  const name = { clear: "Clear", doubt: "Doubt of the clear", risk: "Chance to end below the minimum" }[layer];
  const least = Math.min(...cells);
  const most = Math.max(...cells);
  const digits = units.film === "µm" ? 0 : 2;
  const text = (v: number) =>
    layer === "risk" ? `${+(100 * v).toFixed(1)} %` : show("film", v, units, layer === "doubt" ? digits + 1 : digits).text;
  return (
    <>
      <FilmMapDrawing
        shape={panel.shape}
        map={map}
        layer={layer}
        cells={cells}
        steps={steps}
        stepText={text}
        spots={state.spots.filter((s) => s.films.after ?? s.films.recheck)}
        next={layer === "clear" || noGaugeReads(panel.substrate) ? null : map.next}
        thinnest={layer === "clear" ? map.thinnest.at : null}
        picked={picked}
        onPick={onPick}
        label={`${name} of ${panel.name}, from ${text(least)} to ${text(most)}${layer === "risk" ? "" : ` ${units.film}`}.`}
      />
      <RampScale layer={layer} steps={steps} text={text} unit={layer === "risk" ? "" : units.film} />
      {layer === "risk" && most < RISK_STEPS[0]! && <p className="text-center text-ink2">Less than 1 in 100 everywhere.</p>}
    </>
  );
});

/** Where one more reading tells most, and whether more readings help at all. */
function ReadNext({ next, sentence }: { next: Point | null; sentence: string | null }) {
  const { view } = usePanel();
  const fetcher = useFetcher<FormAnswer>();
  if (!next) return null;
  return (
    <fetcher.Form method="post" className="space-y-2 border-t border-hair pt-4">
      <input type="hidden" name="x_m" value={next[0].toFixed(3)} />
      <input type="hidden" name="y_m" value={next[1].toFixed(3)} />
      <h3 className="font-semibold">Read here next: {placeInWords(next, view.panel.shape)}</h3>
      <p className="min-h-10 text-ink2" data-testid="settle" aria-live="polite">
        {sentence ?? "The reading there narrows the doubt most, not the riskiest place."}
      </p>
      <button className="press" disabled={fetcher.state !== "idle"}>
        Put it on the walk
      </button>
    </fetcher.Form>
  );
}
