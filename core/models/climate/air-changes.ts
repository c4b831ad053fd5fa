import { requireNumber } from "../../kernel/guard";

/** Share of the mist and vapour that may be left when the mask comes off: one in a hundred, as for airborne contaminants in rooms. */
export const MIST_LEFT = 0.01;

/**
 * Time until a well-mixed room has changed its air so often that a share of what hung in it is left: t = ln(1/left) ÷ changes. CDC guidelines for
 * airborne contaminant removal, appendix B, table B.1 (from memory). Corners and what the fresh film gives off keep it longer.
 * @throws RangeError @example 12 changes an hour, 1 % left: 23 min
 */
export function airClears_s(airChanges_1_h: number, left = MIST_LEFT): number {
  requireNumber("airChanges_1_h", airChanges_1_h, { min: 0.1, max: 1000 });
  requireNumber("left", left, { min: 1e-4, max: 0.5 });
  return (3600 * Math.log(1 / left)) / airChanges_1_h;
}
