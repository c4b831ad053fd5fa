import type { Assessment } from "#core/judge/assess";
import { EDGE_BITE } from "#core/judge/cell-risk";
import { LOCAL_UNEVENNESS } from "#core/models/correction/unevenness";
import type { PanelMap } from "#core/judge/panel-map";
import type { Sessions } from "#core/panel/gauge-sessions";
import { showChance } from "#core/kernel/units/format";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import { chanceAt } from "#core/judge/chance-at";
import type { Working } from "~/kit/ui/figure";
import { line, withU } from "~/kit/words/lines";

/** How the map and its chances came about. */
export function mapWorking(
  map: PanelMap,
  o: { removal_m: number; u_removal_m: number; floor_m: number; sessions: Sessions },
  units: UnitPreferences,
): Working {
  return {
    title: "The film between the spots",
    formula:
      "Clear = a flat film, thinner towards the edge and over body lines, plus a slow wave whose length and height the readings themselves tell. " +
      "2,000 panels that fit the readings are drawn; each allows so much removal. The chance is the share that allows less.",
    inputs: [
      withU("clear, mean of the panel", "film", map.mean.clear_m, map.mean.u_m, units),
      line("length of the wave", "length", map.unknowns.length_m, units),
      line("height of the wave, clear", "film", map.unknowns.sdClear_m, units, 1),
      line("height of the wave, below", "film", map.unknowns.sdUnder_m, units, 1),
      line("roughness below a spot", "film", map.unknowns.micro_m, units, 1),
      { name: "gauge error shared before and after", shown: `${Math.round(100 * o.sessions.correlation)} %` },
      line("probe moved by about", "length", o.sessions.relocation_m, units),
      withU("removal", "film", o.removal_m, o.u_removal_m, units),
      { name: "uneven by hand", shown: `${100 * LOCAL_UNEVENNESS} %` },
      { name: "bites harder at the edge", shown: `up to ${100 * EDGE_BITE.share} %` },
      line("floor", "film", o.floor_m, units),
      { name: "share that allows less (thin)", shown: showChance(chanceAt(map.thin_m, o.removal_m)) },
    ],
    sources: map.inferred ? ["matern-kriging", "yakamoz-default"] : ["shop-reading", "matern-kriging", "jcgm-100", "yakamoz-default"],
    changesMost: map.inferred ? "A reading before clear." : "The reading that the map asks for next.",
  };
}

/** What would settle the question, in a sentence; null while it is not asked. */
export function settleSentence(a: Assessment | null): string | null {
  if (!a || a.verdict === "none") return null;
  if (a.verdict === "safe") return "It is safe as it is; one more reading would only sharpen the map.";
  const readings = a.wouldHelp.find((r) => r.what === "readings");
  if (readings) return `${readings.count} more readings, if they come out as expected, make it safe. This is the first.`;
  return "More readings will not make this removal safe. Take less off.";
}
