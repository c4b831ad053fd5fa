import { requireNumbers } from "../../kernel/guard";
import { median, summarise } from "../../kernel/stats/summary";
import type { GlossAngle } from "./fresnel-gloss";

export interface GlossSummary {
  angle: GlossAngle;
  n: number;
  /** The middle one: a reading astray does not move it. */
  middle_GU: number;
  /** Spread from place to place and standard uncertainty of the middle. */
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

/** A median's standard uncertainty over that of a mean, of many normal readings: √(π/2). Of a few it is less. */
const MEDIAN_U = Math.sqrt(Math.PI / 2);

/** Gloss over a panel at one angle. @throws RangeError for no reading or one outside 0…200 GU. */
export function glossSummary(angle: GlossAngle, readings_GU: readonly number[]): GlossSummary {
  requireNumbers("readings_GU", readings_GU, 1, { min: 0, max: 200 });
  const { mean, sd, min: lowest_GU, max: highest_GU } = summarise(readings_GU);
  const spread_GU = readings_GU.length > 1 ? sd : 0;
  const uniform = highest_GU - lowest_GU <= Math.max(PATCH_GU, PATCH_SHARE * mean);
  return {
    angle,
    n: readings_GU.length,
    middle_GU: median(readings_GU),
    spread_GU,
    u_GU: Math.hypot(((readings_GU.length > 2 ? MEDIAN_U : 1) * spread_GU) / Math.sqrt(readings_GU.length), METER_U_GU),
    lowest_GU,
    highest_GU,
    uniform,
    words: readings_GU.length < 3 ? "too few readings to judge evenness" : uniform ? "even" : "patchy: look across it in daylight",
  };
}
