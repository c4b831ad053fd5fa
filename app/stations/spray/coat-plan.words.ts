import type { UnitPreferences } from "#core/kernel/units/quantities";
import type { ProductSheet } from "#core/models/product/sheet";
import type { PlanRow } from "./coat-plan-at";
import type { Working } from "~/kit/ui/figure";
import { line, withU } from "~/kit/words/lines";

export function coatPlanWorking(rows: readonly PlanRow[], sheet: ProductSheet, units: UnitPreferences): Working {
  const end = rows.at(-1)!;
  return {
    title: "Coat plan",
    formula:
      "Each coat: the gun's film at the way's hand speed. The wait is the sheet's flash at today's temperature, longer where the way or a run asks for it, never shorter; the shortest wait without a run and the moment a grip coat has locked come from the flow model, coat on coat.",
    inputs: [
      ...rows.map((r) => withU(`Coat ${r.number}, ${r.role}`, "film", r.dry_m, r.u_dry_m, units)),
      withU("Clear in all", "film", end.clear_m, end.u_clear_m, units),
      line("Sheet, least a coat", "film", sheet.filmPerCoatMin_m, units),
      line("Sheet, most a coat", "film", sheet.filmPerCoatMax_m, units),
    ],
    sources: ["product-sheet", "common-practice", "orchard-flow"],
    changesMost: "Hand speed and distance; the shop's own film factor once it is learnt.",
  };
}
