import type { BodyOf } from "#core/record/bodies";
import { DEFAULT_GAUGE, type Repeatability } from "#core/models/film/gauge";
import { type GaugeCheckResult, setupUncertainty } from "#core/models/film/gauge-check";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import type { Working } from "~/kit/ui/figure";
import { line, withU } from "~/kit/words/lines";

export function setupWorking(body: BodyOf<"gaugeCheck">, check: GaugeCheckResult, film_m: number, units: UnitPreferences): Working {
  return {
    title: "What the set-up leaves in doubt",
    formula:
      "Film = (reading − zero) × foil ÷ (reading on the foil − zero). With λ = film ÷ foil its doubt is √((1 − λ)²·zero² + λ²·(on foil² + foil²)): least for a foil near the film.",
    inputs: [
      withU("zero", "film", check.zero_m, check.uZero_m, units),
      withU("on the foil", "film", check.onFoil_m, check.uOnFoil_m, units),
      withU("foil", "film", body.foil_m, body.uFoil_m, units),
      line("reads too much on the foil", "film", check.foilError_m, units, 1),
      line("film asked about", "film", film_m, units),
      line("doubt from the set-up", "film", setupUncertainty(check, body, film_m), units, 1),
      ...(check.drift
        ? [
            line("zero changed since the last check by", "film", check.drift.zero_m, units, 1),
            line("foil changed by", "film", check.drift.onFoil_m, units, 1),
          ]
        : []),
    ],
    sources: ["shop-reading", "jcgm-100", "yakamoz-default"],
    changesMost: "A foil near the film that is to be read.",
  };
}

export function repeatabilityWorking(repeat: Repeatability, groups: readonly (readonly number[])[], units: UnitPreferences): Working {
  return {
    title: "Repeatability",
    formula: "Pooled over the spots read more than once, together with the usual figure at the weight of six readings.",
    inputs: [
      line("usual figure", "film", DEFAULT_GAUGE.repeatability_m, units, 1),
      { name: "spots read more than once", shown: String(groups.filter((g) => g.length > 1).length) },
      { name: "degrees of freedom in all", shown: String(repeat.degreesOfFreedom) },
      line("pooled", "film", repeat.repeatability_m, units, 1),
    ],
    sources: ["shop-reading", "yakamoz-default"],
    changesMost: "More repeats at a spot.",
  };
}
