import type { GlossSummary } from "#core/models/gloss/gloss-statistics";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import type { Working } from "~/kit/ui/figure";
import { line, withU } from "~/kit/words/lines";

export function glossWorking(s: GlossSummary, units: UnitPreferences): Working {
  return {
    title: `Gloss at ${s.angle}°`,
    formula:
      "Mean of the readings. Uncertainty: spread from place to place ÷ √n and the meter's own 0.3 GU, added in squares. Even means that highest and lowest lie within 2 GU or 15 % of the mean, whichever is more.",
    inputs: [
      { name: "readings", shown: String(s.n) },
      withU("mean", "gloss", s.mean_GU, s.u_GU, units),
      line("spread from place to place", "gloss", s.spread_GU, units),
      line("lowest", "gloss", s.lowest_GU, units),
      line("highest", "gloss", s.highest_GU, units),
    ],
    sources: ["iso-2813", "shop-reading", "common-practice"],
    changesMost: "Readings spread over the whole part: one place says nothing about evenness.",
  };
}
