import { hottestCounted_K } from "#core/models/cure/bake-plan";
import type { ProductSheet } from "#core/models/product/sheet";
import { show } from "#core/kernel/units/format";
import type { UnitPreferences } from "#core/kernel/units/quantities";

/** Why such heat is not counted, and what may be done. */
export function tooHotWords(sheet: Pick<ProductSheet, "bake">, units: UnitPreferences): string {
  if (!sheet.bake) return "This product's sheet gives no bake, so nothing can be worked out from one: put it in under Products first";
  const most = show("temperature", hottestCounted_K(sheet), units, 0);
  return `More than its sheet speaks of: nothing is worked out above ${most.text} ${most.unit}. See the sheet; log what the part itself held`;
}
