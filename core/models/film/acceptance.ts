import { requireNumber, requireNumbers } from "../../kernel/guard";

/** Limits of a spot against the least and the most of the film, by level. SSPC-PA 2 (from memory). */
export const SPOT_LEVELS = {
  1: { low: 1, high: 1 },
  2: { low: 1, high: 1.2 },
  3: { low: 0.8, high: 1.2 },
  4: { low: 0.8, high: 1.5 },
  5: { low: 0.8, high: Infinity },
} as const;
export type SpotLevel = keyof typeof SPOT_LEVELS;

const ROUNDING = 1e-9;

export interface SpotAcceptance {
  mean_m: number;
  meanOk: boolean;
  spotsOk: boolean;
  accepted: boolean;
}

/**
 * Label by the rule of SSPC-PA 2: the mean of the spots between least and most, and every spot within its level's share of them. Made for
 * steelwork: an optional label, never the verdict on a removal.
 * @param spots_m each the mean of at least three close readings @throws RangeError
 */
export function spotAcceptance(spots_m: readonly number[], range: { least_m: number; most_m: number; level?: SpotLevel }): SpotAcceptance {
  requireNumbers("spots_m", spots_m, 1, { min: 0, max: 5e-3 });
  const least = requireNumber("least_m", range.least_m, { min: 0 });
  const most = requireNumber("most_m", range.most_m, { min: least });
  const { low, high } = SPOT_LEVELS[range.level ?? 3];
  const mean_m = spots_m.reduce((a, b) => a + b, 0) / spots_m.length;
  const meanOk = mean_m >= least && mean_m <= most;
  const slack = ROUNDING * most;
  const spotsOk = spots_m.every((s) => s >= low * least - slack && (high === Infinity || s <= high * most + slack));
  return { mean_m, meanOk, spotsOk, accepted: meanOk && spotsOk };
}

export interface NominalAcceptance {
  meanOk: boolean;
  /** Every reading at least 80 % of the nominal film. */
  leastOk: boolean;
  shareBelow: number;
  /** Fewer than a fifth below the nominal film. */
  shareOk: boolean;
  mostOk: boolean;
  accepted: boolean;
}

/** Label by the rule of ISO 19840 (from memory): mean, least, share below and most against a nominal film. @throws RangeError */
export function nominalAcceptance(
  readings_m: readonly number[],
  { nominal_m, most_m }: { nominal_m: number; most_m: number },
): NominalAcceptance {
  requireNumbers("readings_m", readings_m, 1, { min: 0, max: 5e-3 });
  const nominal = requireNumber("nominal_m", nominal_m, { above: 0 });
  requireNumber("most_m", most_m, { min: nominal });
  const mean = readings_m.reduce((a, b) => a + b, 0) / readings_m.length;
  const shareBelow = readings_m.filter((x) => x < nominal).length / readings_m.length;
  const checks = {
    meanOk: mean >= nominal,
    leastOk: readings_m.every((x) => x >= 0.8 * nominal),
    shareOk: shareBelow < 0.2,
    mostOk: readings_m.every((x) => x <= most_m),
  };
  return { ...checks, shareBelow, accepted: Object.values(checks).every(Boolean) };
}
