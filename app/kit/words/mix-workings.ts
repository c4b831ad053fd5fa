import { FILM_CV, type MixInput, type MixPlan, U_TRANSFER } from "#core/models/mix/mix-plan";
import { REDUCER_MEANINGS } from "#core/models/product/ratio";
import { flashPoints, potLifePoints } from "#core/models/product/sheet";
import { show } from "#core/kernel/units/format";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import type { Working } from "~/kit/ui/figure";
import { line, withU } from "./lines";

export function mixWorking(plan: MixPlan, i: MixInput, units: UnitPreferences): Working {
  return {
    title: "How much to mix",
    formula: i.strokes_m3
      ? "Volume = strokes × (length + overrun at both ends) ÷ hand speed × fluid, coat by coat over every part, plus waste and what stays in gun and cup. What the area and the film say stands beside it as a check."
      : "Volume = area × coats × dry film ÷ solids of the reduced mix ÷ share that lands, plus waste and what stays in gun and cup. Solids of the reduced mix = solids of the activated mix ÷ (1 + reducer on top).",
    inputs: [
      line("area", "area", plan.amount.area_m2, units),
      { name: "coats", shown: String(i.coats) },
      withU("dry film a coat", "film", i.dryFilm_m, FILM_CV * i.dryFilm_m, units),
      line("solids by volume, activated", "share", i.sheet.volumeSolids, units),
      { name: "ratio by volume", shown: i.ratio.join(" : ") },
      { name: "reducer", shown: `${show("share", i.reducer, units).text} % ${REDUCER_MEANINGS[i.meaning]}` },
      line("that is, on top of the activated mix", "share", plan.reducerOnActivated, units),
      withU("lands on the part", "share", i.transfer, U_TRANSFER, units),
      line("waste", "share", i.waste, units),
      line("stays in gun and cup", "volume", i.dead_m3, units),
      ...(i.strokes_m3 ?? []).map((v, k) => line(`coat ${k + 1} by strokes`, "volume", v, units)),
      ...(i.strokes_m3 ? [line("by area, film and what lands", "volume", plan.byArea_m3, units)] : []),
      withU("ready to spray", "volume", plan.amount.ready_m3, plan.amount.u_ready_m3, units),
    ],
    sources: ["spreading-rate", "product-sheet", "common-practice"],
    changesMost:
      "What lands: between 50 % and 70 % it changes the amount by a third. Weigh the cup before and after a job and you know yours.",
  };
}

const HOW = {
  sheet: "stands on the sheet",
  between: "between two of the sheet's temperatures",
  beyond: "a little beyond the sheet's temperatures",
  "by evaporation": "the sheet gives one temperature only; in the cold longer, as evaporation slows down",
  "only point": "the sheet gives one temperature only; it is not followed",
  "by halving": "the sheet gives one temperature only; warmer it halves for every 10 °C, common practice",
  outside: "outside: taken at 10 K beyond the sheet's last temperature",
} as const;

export function potWorking(plan: MixPlan, i: MixInput, units: UnitPreferences): Working {
  return {
    title: "Pot life and flash at this temperature",
    formula:
      "Between two temperatures of the product's own sheet the logarithm of the time is a straight line against 1/temperature. Of the pot life 80 % is planned with.",
    inputs: [
      ...potLifePoints(i.sheet).map((p) =>
        line(`pot life at ${show("temperature", p.temperature_K, units, 0).text} ${units.temperature}`, "duration", p.time_s, units),
      ),
      line("air", "temperature", i.temperature_K, units),
      line("pot life now", "duration", plan.potLife.time_s, units),
      { name: "how", shown: HOW[plan.potLife.how] },
      ...flashPoints(i.sheet).map((p) =>
        line(`flash at ${show("temperature", p.temperature_K, units, 0).text} ${units.temperature}`, "duration", p.time_s, units),
      ),
      line("flash now", "duration", plan.flash.time_s, units),
    ],
    sources: ["product-sheet", "arrhenius", "common-practice"],
    changesMost: "Temperature of the material in the pot: a big pot warms itself and dies sooner.",
  };
}

export function vocWorking(plan: MixPlan, i: MixInput, units: UnitPreferences): Working {
  return {
    title: "VOC ready to spray",
    formula:
      "Actual: organic solvent of all parts ÷ volume of the mix. Regulatory form: organic solvent ÷ (volume − water − exempt solvent). Volumes are taken to add up.",
    inputs: [
      ...[i.sheet, i.hardener, i.thinner].flatMap((s) =>
        s ? [line(`${s.name}, VOC as supplied`, "concentration", s.voc_kg_m3, units)] : [],
      ),
      line("actual", "concentration", plan.voc?.actual_kg_m3, units),
      line("regulatory", "concentration", plan.voc?.regulatory_kg_m3, units),
    ],
    sources: ["astm-d3960", "product-sheet"],
    changesMost: "Reducer: nearly all of it is solvent. Which form your place wants stands in its own rules.",
  };
}
