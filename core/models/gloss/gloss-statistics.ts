import { requireNumbers } from "../../kernel/guard";
import { summarise } from "../../kernel/stats/summary";
import type { GlossAngle } from "./fresnel-gloss";

export interface GlossSummary {
  angle: GlossAngle;
  n: number;
  mean_GU: number;
  /** Spread from place to place and standard uncertainty of the mean. */
  spread_GU: number;
  u_GU: number;
  lowest_GU: number;
  highest_GU: number;
  uniform: boolean;
  words: string;
}

/** Beyond this span a matte panel looks patchy: common practice, the greater of 2 GU and 15 % of the mean. */
export const PATCH_GU = 2;
export const PATCH_SHARE = 0.15;
/** Meter repeatability, a usual handheld one. */
const METER_U_GU = 0.3;

/** Gloss over a panel at one angle. @throws RangeError for no reading or one outside 0…200 GU. */
export function glossSummary(angle: GlossAngle, readings_GU: readonly number[]): GlossSummary {
  requireNumbers("readings_GU", readings_GU, 1, { min: 0, max: 200 });
  const { mean: average, sd, min: lowest_GU, max: highest_GU } = summarise(readings_GU);
  const spread_GU = readings_GU.length > 1 ? sd : 0;
  const uniform = highest_GU - lowest_GU <= Math.max(PATCH_GU, PATCH_SHARE * average);
  return {
    angle,
    n: readings_GU.length,
    mean_GU: average,
    spread_GU,
    u_GU: Math.hypot(spread_GU / Math.sqrt(readings_GU.length), METER_U_GU),
    lowest_GU,
    highest_GU,
    uniform,
    words: readings_GU.length < 3 ? "too few readings to judge evenness" : uniform ? "even" : "patchy: look across it in daylight",
  };
}
