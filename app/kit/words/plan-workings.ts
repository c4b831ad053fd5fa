import type { ProductSheet } from "#core/models/product/sheet";
import type { Litres } from "#core/coat/litres";
import type { GunSettings } from "#core/models/spray/deposit";
import type { PlanFigures } from "#core/models/ways/plan-figures";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import type { Working } from "~/kit/ui/figure";
import { line } from "./lines";

export function planWorking(
  f: PlanFigures,
  input: { litres: Litres; area_m2: number; sheet: ProductSheet; coats: number; gun: GunSettings },
  units: UnitPreferences,
): Working {
  const [first] = f.coats;
  return {
    title: "How much clear",
    formula:
      "Volume = strokes × (length + overrun at both ends) ÷ hand speed × fluid, coat by coat at the way's pace; trigger let go at each end; for the coats to come, and then waste and what stays in cup and gun. The area × film ÷ solids ÷ transfer of all coats stands beside it as a check.",
    inputs: [
      { name: "strokes a coat", shown: String(first?.strokes ?? 0) },
      line("fluid", "fluidRate", input.gun.fluidRate_m3_s, units),
      line("hand speed before the way's pace", "speed", input.gun.handSpeed_m_s, units),
      ...f.coats.map((c, i) => line(`coat ${i + 1} of a face`, "volume", c.volume_m3, units)),
      line("through the gun", "volume", input.litres.sprayed_m3, units),
      line("with waste, in cup and gun", "volume", input.litres.toMix_m3, units),
      line("area of the outline", "area", input.area_m2, units),
      line("film a coat, least", "film", input.sheet.filmPerCoatMin_m, units),
      line("film a coat, most", "film", input.sheet.filmPerCoatMax_m, units),
      { name: "coats", shown: `${input.coats}, as much film as ${f.fullCoats.toFixed(1)} full ones` },
      ...(f.flatted_m > 0 ? [line("sanded off between builds", "film", f.flatted_m, units)] : []),
      line("by area, at a transfer of 65 %", "volume", f.byArea_m3, units),
      line("pot life by the sheet", "duration", input.sheet.potLife_s, units),
    ],
    sources: ["orchard-flow", "spreading-rate", "product-sheet", "common-practice"],
    changesMost: "Fluid and hand speed: half the speed takes twice the material.",
  };
}
