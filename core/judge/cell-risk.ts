import { requireNumber } from "../kernel/guard";
import { LOCAL_UNEVENNESS } from "../models/correction/unevenness";
import { normalCdf } from "../kernel/stats/normal";

/** Paper bites harder near an edge: × (1 + 0.5·exp(−d/10 mm)). Default of ours. */
export const EDGE_BITE = { share: 0.5, length_m: 0.01 } as const;

export function edgeMultiplier(edgeDistance_m: number): number {
  return 1 + EDGE_BITE.share * Math.exp(-requireNumber("edgeDistance_m", edgeDistance_m, { min: 0 }) / EDGE_BITE.length_m);
}

export interface CellRiskInput {
  clear_m: number;
  u_clear_m: number;
  removal_m: number;
  u_removal_m: number;
  multiplier?: number;
  floor_m: number;
  localCv?: number;
}

/** Margin above the floor after removal and its standard deviation. */
export function cellMargin(input: CellRiskInput): { margin_m: number; sd_m: number } {
  const { multiplier = 1, localCv = LOCAL_UNEVENNESS } = input;
  const removal = requireNumber("removal_m", input.removal_m, { min: 0 }) * requireNumber("multiplier", multiplier, { above: 0 });
  const sd_m = Math.hypot(
    requireNumber("u_clear_m", input.u_clear_m, { above: 0 }),
    multiplier * requireNumber("u_removal_m", input.u_removal_m, { min: 0 }),
    removal * requireNumber("localCv", localCv, { min: 0 }),
  );
  return { margin_m: requireNumber("clear_m", input.clear_m) - removal - requireNumber("floor_m", input.floor_m, { min: 0 }), sd_m };
}

/**
 * Chance that one place ends below a floor.
 * @throws RangeError @example cellRisk({ clear_m: 45e-6, u_clear_m: 4e-6, removal_m: 8e-6, u_removal_m: 1.5e-6, multiplier: 1.2, floor_m: 30e-6 }) // 0.12107
 */
export function cellRisk(input: CellRiskInput): number {
  const { margin_m, sd_m } = cellMargin(input);
  return normalCdf(-margin_m / sd_m);
}
