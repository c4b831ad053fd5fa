import { requireNumber } from "../guard";
import { type Quantity, unitDef } from "./quantities";

/** Entered figure to SI. @throws RangeError when not finite or the unit is unknown. @example toSi("film", 1, "mil") // 25.4e-6 */
export function toSi(quantity: Quantity, entered: number, unit: string): number {
  const { scale, offset = 0 } = unitDef(quantity, unit);
  return requireNumber(quantity, entered) * scale + offset;
}

/** SI figure to a shown unit, unrounded. @throws RangeError */
export function fromSi(quantity: Quantity, si: number, unit: string): number {
  const { scale, offset = 0 } = unitDef(quantity, unit);
  return (requireNumber(quantity, si) - offset) / scale;
}
