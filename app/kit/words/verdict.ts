import { capital } from "./capital";
import type { Assessment, Remedy } from "#core/judge/assess";
import { placeInWords } from "#core/kernel/geometry/place-in-words";
import type { PanelShape } from "#core/kernel/geometry/shapes";
import { showChance, showFilm } from "#core/kernel/units/format";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import type { BlockedBy } from "#core/judge/blocked-by";
import { VERDICT_LIMITS, type Verdict } from "#core/judge/limits";
import { stopWords } from "./stop-words";

export const VERDICT_WORDS: Record<Verdict, { word: string; tag: "good" | "caution" | "stop" | "open" }> = {
  safe: { word: "Safe", tag: "good" },
  caution: { word: "Caution", tag: "caution" },
  stop: { word: "Stop", tag: "stop" },
  uncertain: { word: "Not sure yet", tag: "open" },
  none: { word: "No verdict", tag: "open" },
};

/** The verdict as one sentence with its number, ready to be read from a metre away. */
export function verdictSentence(
  a: Assessment,
  shape: Pick<PanelShape, "outline" | "sides">,
  units: UnitPreferences,
  held: readonly BlockedBy[] = [],
): string {
  if (a.verdict === "none") return a.reason ?? "Too few readings for a verdict.";
  // Whatever the film allows: what says no comes first.
  const no = stopWords(held);
  if (no) return no;
  const place = a.thinnest ? placeInWords(a.thinnest.at, shape) : "the thinnest place";
  const chance =
    a.cutChance > VERDICT_LIMITS.safe.cut
      ? `${showChance(a.cutChance)} chance of cutting through`
      : `${showChance(a.thinChance)} chance of leaving too little`;
  const was = a.cutChance > VERDICT_LIMITS.safe.cut ? a.asItIs.cutChance : a.asItIs.thinChance;
  const before = was > VERDICT_LIMITS.safe.thin ? ` It is ${showChance(was)} as it is, with nothing done.` : "";
  const safe = showSafe(a.largestSafeRemoval_m, units);
  switch (a.verdict) {
    case "safe":
      return `Safe. ${capital(chance)}; thinnest at the ${place}.`;
    case "caution":
      return `Go with care: ${chance}, worst at the ${place}.${before}`;
    case "uncertain":
      return "Not sure yet.";
    case "stop":
      return a.largestSafeRemoval_m > 0.5e-6
        ? `Stop. ${capital(chance)}; ${safe.text} ${safe.unit} is the most that may come off.${before}`
        : `Stop. ${capital(chance)}; nothing may come off at the ${place}.${before}`;
  }
}

/** One thing that alone would make it safe. */
export function remedyWords(r: Remedy, shape: Pick<PanelShape, "outline" | "sides">): string {
  switch (r.what) {
    case "foil":
      return "A foil check logged with the readings.";
    case "mark":
      return `The first step over the panel read at ${r.places === 1 ? "a mark" : "three marks on different places"}, three times before and after, if it comes out as forecast.`;
    case "readings":
      return `${r.count} more readings, if they come out as expected; first at the ${placeInWords(r.at[0]!, shape)}.`;
  }
}

/** The most that may come off: in whole µm or tenths of a mil, never rounded up. */
export function showSafe(safe_m: number, units: UnitPreferences) {
  const step_m = units.film === "µm" ? 1e-6 : 0.1 * 25.4e-6;
  const whole_m = Math.floor(safe_m / step_m + 1e-9) * step_m;
  return whole_m > 0 ? showFilm(whole_m, units) : { text: "nothing", unit: "" };
}

/** What that figure is called: what holds the work back goes before it, and what may be too thin is not called so for sure. */
export function safeLabel(
  safe_m: number,
  { thinnest_m, floor_m, held }: { thinnest_m: number | null; floor_m: number; held: boolean },
): string {
  if (safe_m > 0) return held ? "the film by itself would bear" : "may come off safely";
  return thinnest_m !== null && thinnest_m < floor_m
    ? "may come off: it is too thin already"
    : "may come off for sure: it may be too thin already";
}
