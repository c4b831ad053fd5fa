import { useDraft } from "~/kit/draft/use-draft";
import { type OddReading, oddReading } from "#core/models/film/odd-reading";
import { readFilms } from "~/kit/form/film-readings";
import { AskedReading, type Asked, filmsText } from "./asked-reading";
import { useCallback, useEffect, useRef, useState } from "react";
import { PHASES, type Phase } from "#core/record/kinds";
import { placeInWords } from "#core/kernel/geometry/place-in-words";
import { show, showFilm } from "#core/kernel/units/format";
import { METRIC } from "#core/kernel/units/quantities";
import { later, useLater } from "~/kit/root/later";
import { useUnits } from "~/kit/root/use-root";
import { usePanel } from "~/kit/panel/use-panel";
import { Tag } from "~/kit/ui/tag";
import { PanelDrawing, type SpotMark } from "~/kit/panel/panel-drawing";
import { StandIn } from "~/kit/shell/stand-in";
import { GaugeAndPlace } from "./gauge-and-place";
import { NumberPad } from "./number-pad";
import { useOwnPad } from "./use-own-pad";
import { StandInGauge } from "./stand-in-gauge";
import { useGauge } from "./use-gauge";
import { type RefusedReading, useReadingQueue } from "./use-reading-queue";
import type { Point } from "#core/kernel/geometry/geometry";
import type { PhaseFilm } from "#core/panel/film-record";

/** Where the readings are taken out again: it comes when there are any. */
const table = later(() => import("./read-table"));
function ReadTable({ phase }: { phase: Phase }) {
  const { view } = usePanel();
  const part = useLater(table, view.state.spots.length > 0);
  return part && <part.ReadTable phase={phase} />;
}

const importing = later(() => import("./import-readings"));

/** Opens the window that reads a file; fetched when it is first opened. */
function ImportButton({ phase }: { phase: Phase }) {
  const [open, setOpen] = useState(false);
  const part = useLater(importing, open, true); // it reads a file with the server: without it there is nothing to have it for
  if (part) return <part.ImportReadings phase={phase} open={open} onOpenChange={setOpen} />;
  return (
    <button type="button" className="press" aria-haspopup="dialog" onClick={() => setOpen(true)}>
      Paste or import
    </button>
  );
}

interface ReadingDeskProps {
  phase: Phase;
}

/**
 * Readings typed spot by spot: Enter saves and goes on, so a gauge that types like a keyboard works as it is; a bridged gauge may send
 * them, and the stand-in reads a spot at a press.
 */
export function ReadingDesk({ phase }: ReadingDeskProps) {
  const { view } = usePanel();
  const units = useUnits();
  const { spotPlan, state, readingsPerSpot, panel } = view;
  const typing = useTyping(phase);
  const { count, asked, again, chosen, saved, draft, template, listening } = typing;

  /** Readings of a spot, those that wait for an answer about themselves included. */
  const counted = (name: string) => count(name) + asked.filter((a) => a.spot === name).length;
  const wanted = (name: string) => again[name] ?? readingsPerSpot;
  const wants = (name: string) => counted(name) < wanted(name);
  const shownSpot = (chosen && wants(chosen) ? chosen : null) ?? spotPlan.find((s) => wants(s.name))?.name ?? null;
  // Only what the server has acknowledged counts as read.
  const read = spotPlan.filter((s) => saved(s.name) >= readingsPerSpot).length;
  const choose = (name: string) => {
    if (!wants(name)) typing.setAgain((a) => ({ ...a, [name]: counted(name) + readingsPerSpot }));
    typing.setProblem(null);
    typing.setChosen(name);
  };
  const taking = useTaking(typing, { phase, shownSpot, wanted });
  const { isAgain, thereOf } = taking;

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
  const left = shownSpot ? wanted(shownSpot) - counted(shownSpot) : 0;
  const there = shownSpot && isAgain(shownSpot) ? thereOf(shownSpot) : null;
  return (
    <div className="grid gap-x-8 gap-y-3 sm:mt-3 sm:gap-y-5 md:grid-cols-[1.3fr_1fr]">
      <div className="max-sm:[&_svg]:max-h-[17dvh]">
        <PanelDrawing
          shape={panel.shape}
          spots={marks}
          onSpot={choose}
          label={`${panel.name}: ${read} of ${spotPlan.length} spots read ${PHASES[phase]}`}
        />
      </div>
      <div className="space-y-2 sm:space-y-4">
        <p className="flex flex-wrap items-center gap-2">
          <span className="text-[27px] font-semibold tracking-tight" data-testid="spots-read">
            {read} of {spotPlan.length}
          </span>
          <span className="text-ink2">spots read {PHASES[phase]}</span>
          {state.spots.some((s) => s.films[phase]?.simulated) && <Tag kind="simulated">simulated</Tag>}
        </p>
        <Typed {...{ phase, spot, typing, taking, there, left }} />
        <div className="flex flex-wrap gap-2">
          <StandIn>
            <StandInGauge phase={phase} spot={spot?.name ?? null} template={template} />
          </StandIn>
          <ImportButton phase={phase} />
        </div>
        <Spots {...{ shownSpot, choose, count }} input={typing.input} />
        <GaugeAndPlace {...{ draft, listening }} setListening={typing.setListening} />
        <ReadTable phase={phase} />
      </div>
    </div>
  );
}

/** What is typed, taken and refused of the readings. */
function useTyping(phase: Phase) {
  const { view } = usePanel();
  const { state } = view;
  const [chosen, setChosen] = useState<string | null>(null);
  /** Readings wanted at spots that were tapped to be read again, those that are there included. */
  const [again, setAgain] = useState<Record<string, number>>({});
  /** Spots that were said to be read once more, not in place of what is there. */
  const [adding, setAdding] = useState<ReadonlySet<string>>(new Set());
  const [problem, setProblem] = useState<string | null>(null);
  const [refusedValue, setRefusedValue] = useState<string | null>(null);
  const draft = useDraft(
    `readings ${phase}`,
    { value: "", gauge: state.gaugeChecks.at(-1)?.body.gauge ?? "", template: false, asked: [] as readonly Asked[] },
    { value: "film", asked: { value: "film" } },
  );
  const { template, value: half, asked } = draft.typed;
  const setHalf = (value: string) => draft.set("value", value);
  const [listening, setListening] = useState(false);
  const input = useRef<HTMLInputElement>(null);
  const onRefused = useCallback((refused: RefusedReading) => {
    setProblem(refused.message);
    setChosen(refused.spot);
    setRefusedValue((v) => v ?? refused.value);
  }, []);
  const { waiting, held, saved, count, take } = useReadingQueue(phase, onRefused);
  useEffect(() => {
    if (refusedValue === null) return;
    if (half === "") setHalf(refusedValue); // nothing typed is lost
    // eslint-disable-next-line react-hooks/set-state-in-effect -- the outbox's answer is the event
    setRefusedValue(null);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once for each refused reading
  }, [refusedValue]);
  return {
    ...{ draft, asked, template, setHalf, input, problem, setProblem },
    ...{ chosen, setChosen, again, setAgain, adding, setAdding, listening, setListening },
    ...{ waiting, held, saved, count, take },
  };
}

type Typing = ReturnType<typeof useTyping>;
type Taking = ReturnType<typeof useTaking>;

interface TypedProps {
  phase: Phase;
  spot: { name: string; at: Point } | undefined;
  typing: Typing;
  taking: Taking;
  /** What the spot has already, where it is read again. */
  there: PhaseFilm | null;
  /** Readings that it still wants. */
  left: number;
}

/** The figure as it is typed. */
function Typed({ phase, spot, typing, taking, there, left }: TypedProps) {
  const { input, problem, setHalf, waiting, held, draft } = typing;
  const { takeTyped, oddOf, thereOf, settle } = taking;
  const { view } = usePanel();
  const units = useUnits();
  const { panel } = view;
  const { value: half, asked } = draft.typed;
  const ownPad = useOwnPad();
  return (
    <div>
      <label htmlFor={`reading-${phase}`} className="mb-1 block font-semibold">
        {spot ? `Spot ${spot.name}, ${placeInWords(spot.at, panel.shape)}` : "Every spot is read"}
      </label>
      <div className="flex gap-2">
        <input
          ref={input}
          id={`reading-${phase}`}
          className="field !text-[22px] font-semibold"
          inputMode={ownPad ? "none" : "decimal"}
          autoComplete="off"
          enterKeyHint="next"
          placeholder={units.film}
          aria-describedby={`reading-${phase}-note`}
          aria-invalid={problem ? true : undefined}
          value={half}
          onChange={(e) => setHalf(e.target.value)}
          onKeyDown={(e) => {
            if (e.key !== "Enter") return;
            e.preventDefault();
            takeTyped();
          }}
        />
        <button type="button" className="press max-sm:hidden" data-kind="main" onClick={takeTyped}>
          Next
        </button>
      </div>
      <NumberPad
        onKey={(key) => draft.set("value", (now) => now + key)}
        onBack={() => draft.set("value", (now) => now.slice(0, -1))}
        onNext={takeTyped}
      />
      {asked.map((one, i) => (
        <AskedReading
          key={`${one.spot} ${i}`}
          asked={one}
          odd={oddOf(one.value, one.spot)}
          there={thereOf(one.spot)}
          onSettle={(how) => settle(i, how)}
        />
      ))}
      <p id={`reading-${phase}-note`} className="mt-1 min-h-5 text-[13px] text-ink2" aria-live="polite">
        {problem ? (
          <span role="alert" className="font-medium text-stop-ink">
            {problem}
          </span>
        ) : waiting ? (
          held ? (
            `${held}: ${waiting} ${waiting === 1 ? "reading waits" : "readings wait"} here and will be sent again`
          ) : (
            `Saving ${waiting}…`
          )
        ) : spot ? (
          there ? (
            `Read here already: ${filmsText(there.readings_m, units)}`
          ) : (
            `${left} ${left === 1 ? "reading" : "readings"} to go here; total film in ${units.film}`
          )
        ) : (
          "Tap a spot to read it again"
        )}
      </p>
    </div>
  );
}

/** The spots, each with how many are read. */
function Spots({
  shownSpot,
  choose,
  input,
  count,
}: {
  shownSpot: string | null;
  choose: (name: string) => void;
  input: React.RefObject<HTMLInputElement | null>;
  count: (name: string) => number;
}) {
  const { view } = usePanel();
  const { spotPlan, readingsPerSpot } = view;
  return (
    <div className="flex flex-wrap gap-1.5" role="group" aria-label="Choose a spot">
      {spotPlan.map((s) => (
        <button
          key={s.name}
          type="button"
          aria-pressed={s.name === shownSpot}
          onClick={() => {
            choose(s.name);
            input.current?.focus();
          }}
          className="press !min-w-11 !px-2 aria-pressed:bg-glow-wash"
        >
          {s.name}
          {count(s.name) >= readingsPerSpot && <span className="sr-only"> read</span>}
        </button>
      ))}
    </div>
  );
}

/** What is done with a figure that is typed, or read by a gauge. */
function useTaking(
  { setProblem, setAgain, take, count, setChosen, again, adding, draft, setHalf, setAdding, input, listening }: Typing,
  { phase, shownSpot, wanted }: { phase: Phase; shownSpot: string | null; wanted: (name: string) => number },
) {
  const { view } = usePanel();
  const units = useUnits();
  const { state } = view;
  const { gauge, template, value: half, asked } = draft.typed;
  const put = (spot: string, value: string, how: { units: typeof units; gauge: string; replaces?: readonly string[] }) => {
    setProblem(null);
    if (how.replaces) setAgain((a) => Object.fromEntries(Object.entries(a).filter(([name]) => name !== spot)));
    if (take(spot, count(spot), value, { ...how, template }) >= wanted(spot)) setChosen(null);
  };
  /** What of a spot is stored already, where it was tapped to be read again and nobody has said yet what for. */
  const thereOf = (name: string) => state.spots.find((s) => s.name === name)?.films[phase] ?? null;
  const isAgain = (name: string) => again[name] !== undefined && !adding.has(name) && thereOf(name) !== null;
  /** The first of the figures typed that is asked about, each beside the others of its spot, typed with it or read before. */
  const oddOf = (value: string, spot: string): OddReading | null => {
    const { problem, readings } = readFilms(value, units);
    if (problem !== null) return null; // said at the field
    const films = state.spots.find((s) => s.name === spot)?.films;
    const before_m = phase === "before" ? null : (films?.before?.film.mean_m ?? null);
    const others_m = state.spots.flatMap((s) => (s.name !== spot && s.films[phase] ? [s.films[phase].film.mean_m] : []));
    const typed_m = readings.map((r) => r.thickness_m);
    for (const [i, film_m] of typed_m.entries()) {
      const spot_m = [...(films?.[phase]?.readings_m ?? []), ...typed_m.filter((_, k) => k !== i)];
      const odd = oddReading(film_m, { unit: units.film, before_m, spot_m, others_m });
      if (odd) return odd;
    }
    return null;
  };
  const takeAt = (spot: string, value: string, by: string) => {
    const anew = isAgain(spot);
    if (anew || oddOf(value, spot)) draft.set("asked", (list) => [...list, { spot, value, gauge: by, again: anew }]);
    else put(spot, value, { units, gauge: by });
  };
  /** Enter: the reading goes on its way, or beside, where it is asked about; the field is free for the next at once, as a gauge needs it. */
  const takeTyped = () => {
    const value = half.trim();
    if (value === "") return;
    if (!shownSpot) return setProblem(`Every spot is read. Tap the one that ${value} belongs to.`);
    takeAt(shownSpot, value, gauge);
    setHalf("");
  };
  /** The question about a reading is answered: stored as it was typed, in the other unit, or in place of what is there; or it is dropped. */
  const settle = (index: number, how: { units?: typeof units; replaces?: readonly string[] } | null) => {
    const { spot, value, gauge: by, again: anew } = asked[index]!;
    draft.set("asked", (list) => list.filter((_, i) => i !== index));
    if (how) {
      if (anew && !how.replaces) setAdding((a) => new Set([...a, spot]));
      put(spot, value, { units, gauge: by, ...how });
    }
    input.current?.focus();
  };
  useGauge(listening, ({ total_m, device }) => {
    if (shownSpot && isAgain(shownSpot)) takeAt(shownSpot, showFilm(total_m, units).text, device);
    else if (shownSpot) put(shownSpot, show("film", total_m, METRIC, 1).text, { units: METRIC, gauge: device });
    else setProblem("The gauge has read, but every spot is read. Tap the one it belongs to and read again.");
  });
  return { isAgain, thereOf, takeTyped, oddOf, settle };
}
