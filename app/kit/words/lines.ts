import { show, showWithUncertainty } from "#core/kernel/units/format";
import type { Quantity, UnitPreferences } from "#core/kernel/units/quantities";

/** One input of a working. */
export const line = (name: string, quantity: Quantity, si: number | null | undefined, units: UnitPreferences, digits?: number) => {
  const s = show(quantity, si, units, digits);
  return { name, shown: `${s.text} ${s.unit}` };
};
/** One input with its uncertainty. */
export const withU = (name: string, quantity: Quantity, si: number, u: number, units: UnitPreferences) => {
  const s = showWithUncertainty(quantity, si, u, units);
  return { name, shown: `${s.text} ${s.unit}` };
};
