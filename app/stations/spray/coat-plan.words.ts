import { showWait } from "#core/kernel/units/format";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import type { ProductSheet } from "#core/models/product/sheet";
import type { PlannedCoatRow, PlannedWait } from "#core/models/ways/coat-plan";
import type { Working } from "~/kit/ui/figure";
import { line, withU } from "~/kit/words/lines";

/** A wait between two coats: the window, and what sooner would do. */
export function waitWords(w: PlannedWait): { main: string; note: string } {
  if (w.sand) return { main: showWait(w.soonest_s), note: "cure, sand flat, clean, then go on" };
  const main = `${showWait(w.soonest_s)} to ${showWait(w.latest_s)}`;
  if (w.runsBefore_s === null) return { main, note: "the next coat runs however long it waits: spray it thinner" };
  if (w.runsBefore_s > w.soonest_s) return { main, note: `runs before ${showWait(w.runsBefore_s)}: wait at least that long` };
  return {
    main,
    note: w.runsBefore_s === 0 ? "sooner traps solvent; it would not run" : `sooner than ${showWait(w.runsBefore_s)} it runs`,
  };
}

export function coatPlanWorking(rows: readonly PlannedCoatRow[], sheet: ProductSheet, units: UnitPreferences): Working {
  const end = rows.at(-1)!;
  return {
    title: "Coat plan",
    formula:
      "Each coat: the gun's film at the way's hand speed. The wait is the sheet's flash at today's temperature times the way's own factor; the shortest wait without a run comes from the flow model, coat on coat.",
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
