import { show, showFilm, showSpan } from "#core/kernel/units/format";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import type { Advice, Debrief, GunPart } from "#core/practice/debrief";
import type { Exercise, Level, MarkMet } from "#core/practice/exercises";
import type { AnySkill } from "#core/practice/mended";
import type { FibreTold } from "#workers/bench-talk";
import type { RowMade } from "#core/practice/rows-made";
import type { Touch } from "#core/practice/touch";

export const LEVEL_WORDS: Record<Level, string> = { guided: "guided", figures: "by the light", booth: "as in the booth" };

export const SKILL_WORDS: Record<AnySkill, string> = {
  overlap: "overlap",
  pace: "pace",
  distance: "distance",
  trigger: "trigger",
  edges: "edges",
  wait: "wait",
  gun: "gun",
  judgement: "judgement",
};

const inWords = (shown: { text: string; unit: string }) => `${shown.text} ${shown.unit}`;
const percent = (share: number) => `${Math.round(100 * share)} %`;

/** A share of a part, as finely as it says something: a run is a small place. */
export const partWords = (share: number): string => (share > 0 && share < 0.01 ? "under 1 %" : percent(share));

/** What one thing was and what was wanted. */
export function adviceWords({ skill, coat, row, was, wanted, part }: Advice, units: UnitPreferences, coats: number): string {
  const of = coats > 1 ? ` of coat ${coat}` : "";
  const length = (m: number) => inWords(show("length", Math.abs(m), units));
  const speed = (v: number) => inWords(show("speed", v, units));
  switch (skill) {
    case "overlap":
      return `Row ${row}${of} lay ${percent(was)} over the row before it. ${percent(wanted)} is wanted.`;
    case "pace":
      return was < 0.3 * wanted
        ? `In row ${row}${of} the hand stood still. Keep it going at ${speed(wanted)}.`
        : `Row ${row}${of} went at ${speed(was)}. ${speed(wanted)} is wanted.`;
    case "distance":
      return `In row ${row}${of} the gun was ${length(was)} away. ${length(wanted)} is wanted, up to the edge.`;
    case "trigger":
      return was < 0
        ? `In row ${row}${of} the trigger was ${length(was)} inside the edge. Pull before the part, let go behind it.`
        : `After row ${row}${of} it stayed pulled while the hand turned. Let go before you turn.`;
    case "edges":
      return `Row ${row}${of} lay ${length(was)} from the edge. The first and the last row go along the edge.`;
    case "gun":
      return gunWords(part ?? "pattern", was, wanted, units);
    case "wait":
      return `Coat ${coat + 1} went on after ${showSpan(was)}. ${showSpan(wanted)} is wanted.`;
  }
}

function gunWords(part: GunPart, was: number, wanted: number, units: UnitPreferences): string {
  switch (part) {
    case "needle":
      return `The needle gave ${inWords(show("fluidRate", was, units))}. ${inWords(show("fluidRate", wanted, units))} is wanted.`;
    case "air":
      return `The air was at ${inWords(show("pressure", was, units))}. ${inWords(show("pressure", wanted, units))} is wanted.`;
    case "fan":
      return `The fan was ${percent(was / wanted)} of the one wanted.`;
    case "pattern":
      return "The gun's pattern was not even. A burst on paper tells it before it is on the part.";
  }
}

/** What would have been, had it been as wanted. */
export function wouldWords({ loss }: Advice, now: Debrief["loss"], units: UnitPreferences): string {
  const said: string[] = [];
  if (now.runShare > 0 && loss.runShare < now.runShare)
    said.push(loss.runShare === 0 ? "nothing would have run" : `runs on ${partWords(loss.runShare)}, not ${partWords(now.runShare)}`);
  if (now.thinShare > 0 && loss.thinShare < now.thinShare)
    said.push(loss.thinShare === 0 ? "no place thin" : `thin on ${partWords(loss.thinShare)} of the part, not ${partWords(now.thinShare)}`);
  if (said.length < 2 && loss.least_m > 1.1 * now.least_m)
    said.push(`at the thinnest ${inWords(showFilm(loss.least_m, units))}, not ${inWords(showFilm(now.least_m, units))}`);
  if (said.length === 0 && loss.heavyShare < now.heavyShare)
    said.push(`too heavy on ${partWords(loss.heavyShare)} of the part, not ${partWords(now.heavyShare)}`);
  if (said.length === 0) said.push(`a film more even by ${percent(Math.max(0, now.uneven - loss.uneven))}`);
  return `Else ${said.join(", ")}.`;
}

/** The session in a sentence. */
export function toldWords({ loss, runs }: Debrief, marks: readonly MarkMet[] | null): string {
  const film = loss.runShare > 0 ? `It ran in ${runs.length === 1 ? "one place" : `${runs.length || "some"} places`}` : "No run";
  const thin = loss.thinShare > 0.005 ? `, thin on ${partWords(loss.thinShare)} of the part` : ", no thin place";
  const passed = marks === null ? "" : marks.every((m) => m.met) ? " That passes." : " Not passed yet.";
  return `${film}${thin}.${passed}`;
}

const MARK_WORDS = { runShare: "run", thinShare: "thin on", uneven: "uneven" } as const;
/** A mark of an exercise and what it came to. */
export function markWords({ mark, was, bound, met }: MarkMet): string {
  if (mark === "judged") return met ? "judged and worked right" : "not judged or worked right";
  if (mark === "between") return `rows between rows, ${percent(was)}; ${percent(bound)} is enough`;
  if (mark === "runShare") return met ? "no run" : `run on ${partWords(was)}`;
  if (mark === "thinShare" || mark === "uneven") return `${MARK_WORDS[mark]} ${partWords(was)}, at most ${percent(bound)}`;
  return met ? `${SKILL_WORDS[mark]} kept` : `${SKILL_WORDS[mark]} not kept`;
}

/** What was wrong with the row that was made last, while the next is sprayed; null: nothing. */
export function rowWords(rows: readonly RowMade[], wanted: { speed_m_s: number; distance_m: number }): string | null {
  const done = rows.slice(0, -1);
  const last = done.at(-1);
  if (!last) return null;
  const name = `Row ${done.length}`;
  if (last.slowest.speed_m_s < 0.3 * wanted.speed_m_s) return `${name} held still for a moment.`;
  if (last.speed_m_s < 0.8 * wanted.speed_m_s) return `${name} was slow.`;
  if (last.speed_m_s > 1.25 * wanted.speed_m_s) return `${name} was fast.`;
  if (Math.abs(last.distance_m / wanted.distance_m - 1) > 0.15)
    return `${name} was too ${last.distance_m > wanted.distance_m ? "far" : "near"}.`;
  if (last.pulledBefore_m < -0.01) return `${name}: the trigger came late.`;
  if (last.letGoAfter_m < -0.01) return `${name}: let go too soon.`;
  return null;
}

/** A finger on the tape beside the part. */
export const TOUCH_WORDS: Record<Touch, string> = {
  strings: "it strings",
  sticks: "it sticks and strings no more",
  print: "it takes a print",
  none: "it takes no print",
};

/** What hangs on the bench and in what it is sprayed. */
export const exerciseNote = ({ tilt_rad, air_K, coats, laid, curve, hidden }: Exercise, clear: string, units: UnitPreferences): string =>
  [
    inWords(show("temperature", air_K, units)),
    clear,
    curve ? "curved" : tilt_rad < 0.5 ? "lying" : "upright",
    "simulated",
    hidden
      ? "sprayed by somebody else"
      : laid > 0
        ? `${laid} coat on, ${coats - laid} to spray`
        : coats > 1
          ? `${coats} coats`
          : "one coat",
  ].join(" · ");

/** How it went to lift a fibre out. */
export function liftedWords(pit_m: number, units: UnitPreferences): string {
  const pit = showFilm(pit_m, units);
  return pit_m < CLOSED_M ? "Out; the film closes over it." : `Out; a pit of ${pit.text} ${pit.unit} stays.`;
}
/** A pit that nobody sees. Default of ours. */
const CLOSED_M = 2e-6;

/** What a fibre came to, and what would have been better. */
export function fibreWords({ coat, height_m, best_m, lifted }: FibreTold, units: UnitPreferences): string {
  const film = (m: number) => {
    const { text, unit } = showFilm(m, units);
    return `${text} ${unit}`;
  };
  const atOnce = best_m < CLOSED_M ? "Lifted at once the film closes over it." : `Lifted at once it leaves ${film(best_m)}.`;
  if (!lifted) return `A fibre was left in coat ${coat}: it stands out ${film(height_m)}, to be sanded off. ${atOnce}`;
  return lifted.pit_m < CLOSED_M
    ? `The fibre in coat ${coat} was lifted in time: the film closed.`
    : `The fibre in coat ${coat} was lifted ${showSpan(lifted.after_s)} min after the coat: a pit of ${film(lifted.pit_m)} stays. ${atOnce}`;
}
