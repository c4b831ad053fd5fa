import { fromSi } from "#core/kernel/units/convert";
import { type Quantity, type UnitPreferences, preferredUnit, unitDef } from "#core/kernel/units/quantities";

/** A SI figure as the text an input starts with. */
export function initial(kind: Quantity, si: number | null | undefined, units: UnitPreferences): string {
  if (si === null || si === undefined) return "";
  const unit = preferredUnit(kind, units);
  return String(Number(fromSi(kind, si, unit).toFixed(unitDef(kind, unit).digits + (kind === "film" ? 1 : 0))));
}
