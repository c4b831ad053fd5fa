import { type CoatForecast, type CourseStep, STEP_KINDS, type StepKind, type StepReason } from "#core/course/steps";
import { COAT_ZONES } from "#core/models/ways/terms";
import { show, showWait, showWithUncertainty } from "#core/kernel/units/format";
import type { Quantity, UnitPreferences } from "#core/kernel/units/quantities";
import { SOURCES } from "#core/kernel/sources";
import type { Working } from "~/kit/ui/figure";
import { isNo } from "#core/course/step-hold";
import { holdName } from "~/kit/words/hold-name";
import { LAYER_NAMES } from "#core/models/prep/layer-names";
import { capital } from "~/kit/words/capital";
import { whenText } from "~/kit/words/when";

const NAMES: Record<StepKind, string> = {
  prepare: "Prepare, and note what lies below",
  colour: "Sealer, ground coats, base",
  readBefore: "Read the film below the clear",
  mix: "Mix",
  coat: "Coat",
  flash: "Flash",
  cureToSand: "Cure before sanding flat",
  flatten: "Sand flat and clean",
  settle: "Let it set before touching",
  turn: "Turn the part over",
  purge: "Air before heat",
  bake: "Bake",
  cool: "Cool",
  cure: "Cure",
  readAfter: "Read the film after clear",
  inspect: "Look it over",
  correct: "Correct",
  measureAgain: "Measure again",
  handOver: "Hand over",
};

/** What names go by: both faces are sprayed, the finish is matte. */
export interface Naming {
  two: boolean;
  matte: boolean;
}

/** A step's name: "Coat 2 of 3, back". */
export function stepName({ kind, number, of, side, layer, grit }: CourseStep, { two: twoFaces, matte }: Naming): string {
  const face = twoFaces && side ? `, ${side}` : "";
  if (layer && kind === "colour") return `${capital(LAYER_NAMES[layer])} ${number} of ${of}${face}`;
  if (layer && kind === "flash")
    return number === null ? `Flash of the ${LAYER_NAMES[layer]}` : `Flash after ${LAYER_NAMES[layer]} ${number}${face}`;
  if (kind === "coat") return `Coat ${number} of ${of}${face}`;
  if (kind === "flash") return `Flash after coat ${number}${face}`;
  if (kind === "purge" && matte) return "Final flash, before any heat";
  if (kind === "flatten" && grit) return `Sand flat, P${grit}, and clean`;
  if (kind === "correct" && of !== null) return `Correct: step ${number} of ${of}`;
  return NAMES[kind];
}

const WHY: Record<StepReason, string> = {
  layers: "After clear the gauge cannot tell the layers apart.",
  sheet: "The product sheet's flash, at the temperatures that were logged.",
  way: "This way waits longer than the sheet's least, by choice.",
  run: "Sooner the next coat may run, by the flow model: later than the sheet alone allows.",
  grip: "The grip coat holds the next one only while it still takes a print.",
  strings: "The grip coat still pulls strings: wait until it takes a print.",
  set: "The grip coat sets before the sheet lets the next one on: lay it wetter, or expect peel.",
  cure: "Not before it is hard enough for paper, at the temperatures that were logged.",
  flat: "A coat over peel carries a part of it through; over a flat surface it does not.",
  turned: "The face below has to bear being touched.",
  solvent: "Heat at once traps solvent: die-back and pops.",
  warm: "Warm clear is soft: paper loads, and a gauge marks it.",
  pot: "By the strokes of this gun over this part; area says less, most of all for small parts.",
  colour: "Its solvent has to leave before what goes on it locks it in; past a day it wants scuffing.",
  surface: "What lies below sets the ceiling.",
  hardness: "A probe marks soft clear, and paper tears it.",
  least: "The smallest repair the film allows.",
  settled: "What came before it is done.",
};
export const stepWhy = (step: CourseStep): string => WHY[step.why];

const LATE = {
  grip: "then the coat below has set: the next one peels on it",
  scuff: "then scuff before the next coat",
} as const;

/** A step so near is now. */
const SOON_MS = 30_000;

/** When: done at, from, until. */
export function stepWhen(s: CourseStep, now_ms: number): string {
  if (s.state === "done") return s.done_ms === null ? "done" : whenText(s.done_ms, now_ms);
  if (s.state === "missed") return "not done";
  const no = s.holds.find(isNo);
  if (no) return `held: ${holdName(no, now_ms)}`;
  const ready = s.state === "now" || s.state === "open";
  if (s.from_ms === null || s.from_ms <= now_ms + SOON_MS) return pastOr(s, now_ms, ready ? "now" : "");
  if (STEP_KINDS[s.kind] === "wait") return `until ${whenText(s.from_ms, now_ms)}`;
  return `from ${whenText(s.from_ms, now_ms)}${endWords(s, now_ms)}`;
}

const pastOr = (s: CourseStep, now_ms: number, otherwise: string): string =>
  s.latest_ms !== null && s.latest_ms < now_ms
    ? `window closed at ${whenText(s.latest_ms, now_ms)}`
    : otherwise === "now"
      ? `now${endWords(s, now_ms)}`
      : otherwise;

/** Of a coat until when: too late after it, or as it is meant while later is still in time; nothing once that is over. */
function endWords({ kind, best_ms, latest_ms }: CourseStep, now_ms: number): string {
  if (kind !== "coat" || best_ms === null || best_ms <= now_ms) return "";
  return `${latest_ms !== null && latest_ms <= best_ms ? " to" : ", best by"} ${whenText(best_ms, now_ms)}`;
}

/** Until when it may wait, and what then; soon: within the hour, or gone by. */
export function lateWords(s: CourseStep, now_ms: number): { text: string; soon: boolean } | null {
  if (s.late === null || s.latest_ms === null) return null;
  const past = s.latest_ms < now_ms;
  return {
    text: past
      ? `Its window closed at ${whenText(s.latest_ms, now_ms)}: ${GONE[s.late]}.`
      : `May wait until ${whenText(s.latest_ms, now_ms)}, ${LATE[s.late]}.`,
    soon: s.latest_ms < now_ms + SOON_LATE_MS,
  };
}
const SOON_LATE_MS = 3600_000;
const GONE = { grip: "the coat below has set, and the next one peels on it", scuff: "scuff before the next coat" } as const;

/** What a step takes, in one line; empty where nothing is known. */
export function stepNeeds(s: CourseStep, units: UnitPreferences): string {
  const volume = s.volume_m3 === null ? "" : `${show("volume", s.volume_m3, units).text} ${units.volume}`;
  return [volume, s.duration_s ? showWait(s.duration_s) : ""].filter(Boolean).join(", ");
}

export function stepWorking(s: CourseStep, name: string, now_ms: number, units: UnitPreferences): Working {
  const time = (what: string, at_ms: number | null) => (at_ms === null ? [] : [{ name: what, shown: whenText(at_ms, now_ms) }]);
  return {
    title: name,
    formula: stepWhy(s),
    inputs: [
      ...time("not before", s.from_ms),
      ...time("as meant until", s.best_ms),
      ...time("too late after", s.latest_ms),
      ...(s.duration_s ? [{ name: "takes", shown: showWait(s.duration_s) }] : []),
      ...(s.volume_m3 === null ? [] : [{ name: "ready to spray", shown: `${show("volume", s.volume_m3, units).text} ${units.volume}` }]),
      { name: "rule from", shown: SOURCES[s.source].text },
    ],
    sources: [s.source],
    changesMost: "Temperature: log the climate when it changes, and the course follows.",
  };
}

/** The gun as the next coat wants it, in a line: "0.31 m/s, 175 mm off, 1.9 bar, fluid 230 ml/min." */
export function coatSettings({ gun: g, zone }: Pick<CoatForecast, "gun" | "zone">, units: UnitPreferences): string {
  const say = (quantity: Quantity, si: number) => {
    const { text, unit } = show(quantity, si, units);
    return `${text} ${unit}`;
  };
  const hand = `${say("speed", g.handSpeed_m_s)}, ${say("length", g.distance_m)} off, ${say("pressure", g.pressure_Pa)}`;
  return `${hand}, fluid ${say("fluidRate", g.fluidRate_m3_s)}${zone === "whole" ? "" : `, ${COAT_ZONES[zone]}`}.`;
}

/** What a coat takes, its window and the clear after it, each as a figure with what it is. */
export function coatFigures(
  { volume_m3, from_ms, best_ms, latest_ms }: CourseStep,
  { now_ms, after }: { now_ms: number; after: { film_m: number; u_m: number; what: string } | null },
  units: UnitPreferences,
): { big: string; small: string }[] {
  const seconds = (at_ms: number | null) => (at_ms === null ? 0 : (at_ms - now_ms) / 1000);
  // Its best time while that lasts; after it until it is too late.
  const left_s = seconds(best_ms) > 0 ? seconds(best_ms) : seconds(latest_ms);
  const opens_s = seconds(from_ms);
  const best = best_ms !== null && latest_ms !== null && best_ms < latest_ms && seconds(best_ms) > 0;
  const film = after && showWithUncertainty("film", after.film_m, after.u_m, units);
  return [
    ...(volume_m3 === null ? [] : [{ big: `${show("volume", volume_m3, units).text} ${units.volume}`, small: "ready to spray" }]),
    ...(opens_s > 0
      ? [{ big: showWait(opens_s), small: "until it may be sprayed" }]
      : left_s > 0
        ? [{ big: showWait(left_s), small: best ? "left of its best time" : "left of its window" }]
        : []),
    ...(film ? [{ big: `${film.text} ${film.unit}`, small: after.what }] : []),
  ];
}

/** The headline: what the hand is at, or waits for. */
export function courseSentence(now: CourseStep, name: string, now_ms: number): { main: string; rest: string } {
  const no = now.holds.find(isNo);
  if (no) return { main: name, rest: `not yet: ${holdName(no, now_ms)}.` };
  const wait = now.from_ms !== null && now.from_ms > now_ms + SOON_MS;
  return { main: name, rest: wait ? `until ${whenText(now.from_ms!, now_ms)}.` : "now." };
}
