import type { RunCalibration } from "#core/models/flow/run-calibration";
import type { WayEffect } from "#core/models/ways/way-effect";
import { show, showWait, showWithUncertainty } from "#core/kernel/units/format";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import type { Working } from "~/kit/ui/figure";
import { coatMayRun } from "~/kit/words/flow-words";
import { textureWords } from "~/kit/words/texture-words";

/** What a way comes to, each figure by its name. */
export function effectRows(e: WayEffect, units: UnitPreferences, calibration: RunCalibration | null): { name: string; shown: string }[] {
  const film = showWithUncertainty("film", e.clear_m, e.u_clear_m, units);
  return [
    { name: "Clear in all", shown: `${film.text} ${film.unit}` },
    { name: "Looks", shown: textureWords(e.texture) },
    { name: "A run at the edges?", shown: coatMayRun(e.nearRun, e, calibration).text },
    { name: "First stroke to last", shown: showWait(e.sprayed_s) },
    { name: "Stays in the booth", shown: String(e.visits) },
    { name: "Until it may be worked", shown: showWait(e.worked_s) },
    { name: "Ready to spray", shown: `${show("volume", e.volume_m3, units).text} ${units.volume}` },
  ];
}

export function effectWorking(e: WayEffect, on: string, units: UnitPreferences, calibration: RunCalibration | null): Working {
  return {
    title: "What this way comes to",
    formula:
      "Each coat by the deposition model with this way's own gun and what it changes from coat to coat; texture and runs by the flow model at the soonest wait; the time is strokes, least waits, and cure where it is sanded between; litres are strokes × (length + overrun) ÷ hand speed × fluid.",
    inputs: [
      { name: "sprayed", shown: on },
      ...effectRows(e, units, calibration).map((r) => ({ name: r.name.toLowerCase(), shown: r.shown })),
    ],
    sources: ["orchard-flow", "levelling-1962", "product-sheet", "common-practice", "yakamoz-default"],
    changesMost: "Hand speed and fluid, then the temperature. A test panel decides.",
  };
}
