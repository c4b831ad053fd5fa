import type { MatteAnswer } from "#core/models/gloss/matte-fit";
import { COVERAGE, show } from "#core/kernel/units/format";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import type { Working } from "~/kit/ui/figure";
import { line, withU } from "./lines";

export function matteWorking(a: MatteAnswer, target_GU: number, units: UnitPreferences): Working {
  return {
    title: "Which matte mix",
    formula:
      "A curve that can only fall is laid through the cards (cards out of order are averaged with their neighbour), smoothed on the logarithm of gloss, and read backwards at the target. The span comes from moving every card within its repeatability 2,000 times, and from the curve's own error for this many cards.",
    inputs: [
      { name: "cards of different mix", shown: String(a.cards) },
      line("target at 60°", "gloss", target_GU, units),
      withU("matting component", "share", a.share, a.u_share, units),
      { name: "19 times in 20 between", shown: `${show("share", a.low, units).text} and ${show("share", a.high, units).text} %` },
      { name: "one point more changes gloss by", shown: `${a.slope_GU_per_point.toFixed(2).replace("-", "−")} GU` },
      { name: "so gloss comes out to within", shown: `± ${(COVERAGE * a.u_gloss_GU).toFixed(1)} GU` },
    ],
    sources: ["shop-cards", "isotonic-1972", "yakamoz-default"],
    changesMost: "A card near the target. Hand, film and drying move matte as much as the mix: same painter, same orientation, same cure.",
  };
}
