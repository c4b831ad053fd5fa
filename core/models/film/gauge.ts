import { requireInteger, requireNumber, requireNumbers } from "../../kernel/guard";
import { median } from "../../kernel/stats/summary";
import { combineBudget } from "./uncertainty-budget";

/** What is believed of a film gauge before its own readings say more. Editable defaults. */
export interface GaugeModel {
  /** Limits of error ±(constant + proportional·x), taken as rectangular. */
  constant_m: number;
  proportional: number;
  /** Repeatability s₀ and the count of degrees of freedom ν₀ it is worth. */
  repeatability_m: number;
  repeatabilityDf: number;
}
export const DEFAULT_GAUGE: GaugeModel = { constant_m: 1e-6, proportional: 0.02, repeatability_m: 2e-6, repeatabilityDf: 6 };

/** Two-point corrected reading. @throws RangeError when zero and foil read alike. */
export function twoPointCorrection(input: { raw_m: number; rawZero_m: number; rawFoil_m: number; foil_m: number }): number {
  const raw = requireNumber("raw_m", input.raw_m);
  const zero = requireNumber("rawZero_m", input.rawZero_m);
  const foil = requireNumber("foil_m", input.foil_m, { above: 0 });
  const span = requireNumber("rawFoil_m", input.rawFoil_m, { above: zero }) - zero;
  return ((raw - zero) * foil) / span;
}

/** Uncertainty of a two-point corrected film; smallest for a foil near the film. @throws RangeError */
export function twoPointUncertainty(input: {
  film_m: number;
  foil_m: number;
  uZero_m: number;
  uRawFoil_m: number;
  uFoil_m: number;
}): number {
  const share = requireNumber("film_m", input.film_m, { min: 0 }) / requireNumber("foil_m", input.foil_m, { above: 0 });
  return Math.hypot(
    (1 - share) * requireNumber("uZero_m", input.uZero_m, { min: 0 }),
    share * requireNumber("uRawFoil_m", input.uRawFoil_m, { min: 0 }),
    share * requireNumber("uFoil_m", input.uFoil_m, { min: 0 }),
  );
}

/** Type B standard uncertainty of the gauge itself at a film: (constant + proportional·x)/√3. */
export function gaugeUncertainty(film_m: number, gauge: GaugeModel = DEFAULT_GAUGE): number {
  return (gauge.constant_m + gauge.proportional * Math.abs(requireNumber("film_m", film_m))) / Math.sqrt(3);
}

export interface Repeatability {
  repeatability_m: number;
  degreesOfFreedom: number;
}

/** Repeatability pooled over groups of repeats with the gauge's prior: s² = (ν₀s₀² + Σ(x−x̄)²)/(ν₀+Σ(n−1)). */
export function pooledRepeatability(groups: readonly (readonly number[])[], gauge: GaugeModel = DEFAULT_GAUGE): Repeatability {
  requireNumber("repeatability_m", gauge.repeatability_m, { above: 0 });
  let sum = requireNumber("repeatabilityDf", gauge.repeatabilityDf, { above: 0 }) * gauge.repeatability_m ** 2;
  let df = gauge.repeatabilityDf;
  for (const group of groups) {
    requireNumbers("readings", group, 0);
    if (group.length < 2) continue;
    const mean = group.reduce((a, b) => a + b, 0) / group.length;
    sum += group.reduce((a, x) => a + (x - mean) ** 2, 0);
    df += group.length - 1;
  }
  return { repeatability_m: Math.sqrt(sum / df), degreesOfFreedom: df };
}

/** Readings to ask for again: |x − median| > 3.5·max(1.4826·MAD, s₀). They are never deleted here. */
export function outlierFlags(readings_m: readonly number[], gauge: GaugeModel = DEFAULT_GAUGE): boolean[] {
  const mid = median(requireNumbers("readings_m", readings_m));
  const mad = 1.4826 * median(readings_m.map((x) => Math.abs(x - mid)));
  return readings_m.map((x) => Math.abs(x - mid) > 3.5 * Math.max(mad, gauge.repeatability_m));
}

export interface SpotFilm {
  n: number;
  mean_m: number;
  repeatability_m: number;
  /** Type A, Type B and combined standard uncertainty. */
  uA_m: number;
  uB_m: number;
  u_m: number;
  degreesOfFreedom: number;
  coverageFactor: number;
  expandedU_m: number;
  flags: readonly boolean[];
}

/**
 * Film at one spot with its uncertainty budget by the GUM: mean of n readings, pooled repeatability, gauge limits, Welch–Satterthwaite
 * and Student t.
 * @param repeatability pooled over the whole panel where there is more than one spot
 * @param coverage probability of the expanded uncertainty (0.95) @param flags which readings to ask for again, where that is known
 * @throws RangeError for no readings, non-finite ones, or coverage outside (0, 1).
 * @example spotFilm([128e-6, 131e-6, 126e-6]).expandedU_m // 4.7577e-6
 */
export function spotFilm(
  readings_m: readonly number[],
  {
    gauge = DEFAULT_GAUGE,
    repeatability = pooledRepeatability([readings_m], gauge),
    coverage = 0.95,
    flags = outlierFlags(readings_m, gauge),
  }: { gauge?: GaugeModel; repeatability?: Repeatability; coverage?: number; flags?: readonly boolean[] } = {},
): SpotFilm {
  requireNumbers("readings_m", readings_m);
  requireNumber("coverage", coverage, { above: 0, below: 1 });
  const n = requireInteger("n", readings_m.length, { min: 1 });
  const mean_m = readings_m.reduce((a, b) => a + b, 0) / n;
  const { repeatability_m, degreesOfFreedom: df } = repeatability;
  const uA_m = repeatability_m / Math.sqrt(n);
  const uB_m = gaugeUncertainty(mean_m, gauge);
  const budget = combineBudget(
    [
      { u: uA_m, degreesOfFreedom: df },
      { u: uB_m, degreesOfFreedom: Infinity },
    ],
    coverage,
  );
  return {
    n,
    mean_m,
    repeatability_m,
    uA_m,
    uB_m,
    u_m: budget.u,
    degreesOfFreedom: budget.degreesOfFreedom,
    coverageFactor: budget.coverageFactor,
    expandedU_m: budget.expanded,
    flags,
  };
}
