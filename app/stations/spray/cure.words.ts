import { cureOf, readyAt } from "#core/coat/cure";
import type { PanelState } from "#core/judge/account";
import type { BakePlan, CureForecast } from "#core/models/cure/bake-plan";
import { PART_LAG_S } from "#core/models/cure/cure-age";
import type { ProductSheet } from "#core/models/product/sheet";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import type { Working } from "~/kit/ui/figure";
import { line } from "~/kit/words/lines";
import { whenText } from "~/kit/words/when";
import { inUnits } from "#core/kernel/units/in-units";

export function cureWorking(f: CureForecast, plan: BakePlan, sheet: ProductSheet, units: UnitPreferences): Working {
  return {
    title: "Ready times",
    formula:
      "Every minute counts by how much faster cure goes at the part’s temperature than at 20 °C (Arrhenius). The factor comes from two schedules of this product’s own sheet. The part lags the air. The range comes from the lag and from 15 % on the sheet’s own times. Wax waits for solvent to leave; heat does not shorten it here.",
    inputs: [
      line(inUnits("sand after, at 20 °C", units), "duration", sheet.sandAfter_s, units),
      line("or bake the part at", "temperature", sheet.bake?.part_K, units, 0),
      line("for", "duration", sheet.bake?.time_s, units),
      {
        name: "activation energy",
        shown: f.energy_J_mol === null ? "60 kJ/mol, a usual one" : `${(f.energy_J_mol / 1000).toFixed(0)} kJ/mol`,
      },
      line("room", "temperature", plan.room_K, units),
      { name: "part lags the air by", shown: `${PART_LAG_S.low} to ${PART_LAG_S.high} s` },
    ],
    sources: ["arrhenius", "product-sheet", "common-practice", "yakamoz-default"],
    changesMost: "The part’s own temperature, not the booth’s: thick metal and plastic lag more.",
  };
}

/** The panel's own cure, by the one rule for it: when it bears work; null before all its coats are on. */
export function cureSentence(
  sheet: ProductSheet,
  state: PanelState,
  { planned, job, now_ms }: { planned: number; job: Parameters<typeof readyAt>[1]; now_ms: number },
): { main: string; rest: string } | null {
  const cure = state.coats.length < planned ? null : cureOf(sheet, state, now_ms);
  if (!cure) return null;
  const ready_ms = readyAt(cure, job);
  if (state.soft)
    return { main: "Marked as soft:", rest: `by its age it would be hard from ${whenText(ready_ms, now_ms)}; a thumbnail decides.` };
  const main = job.finish === "matte" ? "Hard enough to be touched" : "Hard enough to read and sand";
  return ready_ms <= now_ms
    ? { main, rest: `since ${whenText(ready_ms, now_ms)}.` }
    : { main, rest: `from ${whenText(ready_ms, now_ms)}.` };
}
