import type { Assessment } from "#core/film/assess-panel";
import { type PanelShape, placeInWords } from "#core/panel/shapes";
import { show, showChance } from "#core/units/format";
import type { UnitPreferences } from "#core/units/quantities";
import type { Verdict } from "#core/film/verdict";

export const VERDICT_WORDS: Record<Verdict, { word: string; tag: "good" | "caution" | "stop" | "open" }> = {
  safe: { word: "Safe", tag: "good" },
  caution: { word: "Caution", tag: "caution" },
  stop: { word: "Stop", tag: "stop" },
  uncertain: { word: "Not sure yet", tag: "open" },
  none: { word: "No verdict", tag: "open" },
};

/** The verdict as one sentence with its number, ready to be read from a metre away. */
export function verdictSentence(a: Assessment, shape: Pick<PanelShape, "outline" | "sides">, units: UnitPreferences): string {
  if (a.verdict === "none") return a.reason ?? "Too few readings for a verdict.";
  const place = a.thinnest ? placeInWords(a.thinnest.at, shape) : "the thinnest place";
  const chance =
    a.cutChance > 0.005
      ? `${showChance(a.cutChance)} chance of cutting through`
      : `${showChance(a.thinChance)} chance of leaving too little`;
  const safe = show("film", a.largestSafeRemoval_m, units);
  switch (a.verdict) {
    case "safe":
      return `Safe. ${capital(chance)}; thinnest at the ${place}.`;
    case "caution":
      return `Go with care: ${chance}, worst at the ${place}.`;
    case "uncertain":
      return `Not sure yet. ${a.readingsWanted?.count ?? "More"} more readings should settle it, first at the ${a.readingsWanted ? placeInWords(a.readingsWanted.at[0]!, shape) : place}.`;
    case "stop":
      return a.largestSafeRemoval_m > 0.5e-6
        ? `Stop. ${capital(chance)}; ${safe.text} ${safe.unit} is the most that may come off.`
        : `Stop. ${capital(chance)}; nothing may come off at the ${place}.`;
  }
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
