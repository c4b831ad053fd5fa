import type { Assessment } from "#core/judge/assess";
import { EDGE_BITE } from "#core/judge/cell-risk";
import { CUT_GUARD_M, THIN_AREA_SHARE } from "#core/judge/limits";
import type { Removal } from "#core/models/correction/removal-plan";
import { LOCAL_UNEVENNESS } from "#core/models/correction/unevenness";
import { showChance } from "#core/kernel/units/format";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import type { Working } from "~/kit/ui/figure";
import { line, withU } from "./lines";

export function removalWorking(steps: readonly ({ name: string } & Removal)[], total: Removal, units: UnitPreferences): Working {
  return {
    title: "What the steps take off",
    formula:
      "A sanding step takes 1.25 × the depth of its own scratches (a share of the grain size, by backing). The first step also takes the texture it levels, counted in full. Steps add up; uncertainties add in squares.",
    inputs: [
      ...steps.map((s) => withU(s.name, "film", s.removal_m, s.u_m, units)),
      withU("together", "film", total.removal_m, total.u_m, units),
    ],
    sources: ["fepa-43", "common-practice", "yakamoz-default"],
    changesMost: "The coarsest grit and its backing, then the texture to level.",
  };
}

export function chanceWorking(
  a: Assessment,
  input: { removal: Removal; floor_m: number; tape_m: number },
  units: UnitPreferences,
): Working {
  return {
    title: "Chance of trouble",
    formula:
      "The film between the spots is drawn 1,600 times from a field that agrees with the readings (neighbours alike, edges thinner). The removal, its common error and its unevenness are taken off each draw where the work is done, and only there. Counted: draws in which any worked place keeps less than the cut guard, and draws in which more than 2 % of the worked area ends below the minimum.",
    inputs: [
      { name: "cut-through", shown: showChance(a.cutChance) },
      { name: "too thin", shown: showChance(a.thinChance) },
      withU("removal", "film", input.removal.removal_m, input.removal.u_m, units),
      line("floor", "film", input.floor_m, units),
      line("cut guard", "film", CUT_GUARD_M, units),
      line("taped rim, not judged", "length", input.tape_m, units),
      { name: "unevenness of hand removal", shown: `${LOCAL_UNEVENNESS * 100} %` },
      { name: "paper bites harder at the edge by", shown: `${EDGE_BITE.share * 100} % at most` },
      { name: "area that may lie below the minimum", shown: `${THIN_AREA_SHARE * 100} %` },
    ],
    sources: ["matern-kriging", "shop-reading", "yakamoz-default"],
    changesMost:
      "Readings where the film is thin: edges, body lines, tops. The guard against cutting through is too rare an event to have been proved.",
  };
}
