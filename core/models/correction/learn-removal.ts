import { requireInteger, requireNumber, requireNumbers } from "../../kernel/guard";

/** Spread of one removal about a shop's own mean for the same grit, tool and backing; a default of ours. */
export const REMOVAL_SPREAD_M = 0.8e-6;

/** The same spread as a share of one step's removal: 0.8 of 4.6 µm. A default of ours. */
export const STEP_SPREAD = 0.17;

export interface LearntRemoval {
  mean_m: number;
  sd_m: number;
  /** Share that the default still has in the mean. */
  priorWeight: number;
  /** Of the next removal. */
  predictedSd_m: number;
}

/**
 * A shop's own removal of one step from measured pairs, shrunk to the default: normal prior and normal pairs, each pair known to its own
 * uncertainty beside the spread from time to time. A negative removal is taken as it was measured, never clipped.
 * @throws RangeError when the lists differ in length or a spread is not above zero
 */
export function learnRemoval(
  prior: { mean_m: number; sd_m: number },
  pairs: readonly { removal_m: number; u_m: number }[],
  spread_m: number = REMOVAL_SPREAD_M,
): LearntRemoval {
  const mean = requireNumber("prior.mean_m", prior.mean_m);
  const w0 = requireNumber("prior.sd_m", prior.sd_m, { above: 0 }) ** -2;
  requireNumber("spread_m", spread_m, { above: 0 });
  let weight = w0;
  let sum = w0 * mean;
  pairs.forEach((p, i) => {
    const w = 1 / (spread_m ** 2 + requireNumber(`pairs[${i}].u_m`, p.u_m, { min: 0 }) ** 2);
    weight += w;
    sum += w * requireNumber(`pairs[${i}].removal_m`, p.removal_m);
  });
  return {
    mean_m: sum / weight,
    sd_m: Math.sqrt(1 / weight),
    priorWeight: w0 / weight,
    predictedSd_m: Math.sqrt(1 / weight + spread_m ** 2),
  };
}

/** What came off a panel beside what its plan forecast, with the standard uncertainty of both. */
export interface WorkedPair {
  measured_m: number;
  u_m: number;
  forecast_m: number;
  uForecast_m: number;
}

/** Fewer worked panels than this say nothing yet. */
export const REMOVAL_PANELS_LEAST = 3;
const LEAST_FACTOR = 0.2;
const MOST_FACTOR = 5;

/**
 * What a shop takes off against its forecasts, from panels read before and after the work: each pair as a share of its forecast, shrunk to 1 by
 * {@link learnRemoval}. @throws RangeError for a forecast that is not above zero
 */
export function learnRemovalFactor(pairs: readonly WorkedPair[]): {
  factor: number;
  u_log: number;
  n: number;
  enough: boolean;
  words: string;
} {
  const n = pairs.length;
  const shares = pairs.map((p, i) => {
    const forecast = requireNumber(`pairs[${i}].forecast_m`, p.forecast_m, { above: 0 });
    return {
      removal_m: requireNumber(`pairs[${i}].measured_m`, p.measured_m) / forecast,
      u_m: p.u_m / forecast,
      prior: p.uForecast_m / forecast,
    };
  });
  if (n < REMOVAL_PANELS_LEAST)
    return {
      factor: 1,
      u_log: 0,
      n,
      enough: false,
      words: `not enough yet: ${n} of ${REMOVAL_PANELS_LEAST} panels read before and after the work`,
    };
  const mean = (f: (i: number) => number) => pairs.reduce((a, _, i) => a + f(i), 0) / n;
  const learnt = learnRemoval(
    { mean_m: 1, sd_m: mean((i) => shares[i]!.prior) },
    shares,
    REMOVAL_SPREAD_M / mean((i) => pairs[i]!.forecast_m),
  );
  const factor = Math.min(MOST_FACTOR, Math.max(LEAST_FACTOR, learnt.mean_m));
  return {
    factor,
    u_log: learnt.sd_m / factor,
    n,
    enough: true,
    words: factor > 1.05 ? "more comes off here than forecast" : factor < 0.95 ? "less comes off here than forecast" : "as forecast",
  };
}

/** Normal–inverse-gamma belief on a mean and its spread: mean m worth k observations, variance about b/a worth 2a. */
export interface SpreadBelief {
  m: number;
  k: number;
  a: number;
  b: number;
}

/**
 * The same where the spread itself is learnt too: conjugate update (Gelman and others, Bayesian Data Analysis, 3rd ed., section 3.3, from
 * memory). @returns the new belief with the t scale of the mean and of the next observation @throws RangeError
 */
export function learnSpread(
  prior: SpreadBelief,
  observed: readonly number[],
): SpreadBelief & { degreesOfFreedom: number; meanScale: number; nextScale: number } {
  const k0 = requireNumber("prior.k", prior.k, { above: 0 });
  const a0 = requireNumber("prior.a", prior.a, { above: 0 });
  const b0 = requireNumber("prior.b", prior.b, { above: 0 });
  const m0 = requireNumber("prior.m", prior.m);
  requireNumbers("observed", observed, 0);
  const n = observed.length;
  const mean = n > 0 ? observed.reduce((x, y) => x + y, 0) / n : 0;
  const squares = observed.reduce((s, y) => s + (y - mean) ** 2, 0);
  const k = k0 + n;
  const a = a0 + n / 2;
  const b = b0 + squares / 2 + (k0 * n * (mean - m0) ** 2) / (2 * k);
  return {
    m: (k0 * m0 + n * mean) / k,
    k,
    a,
    b,
    degreesOfFreedom: 2 * a,
    meanScale: Math.sqrt(b / (a * k)),
    nextScale: Math.sqrt((b * (k + 1)) / (a * k)),
  };
}

/** A step measured before and after at one mark, with what its plan said of it. */
export interface StepPair {
  key: string;
  /** Film that came off at the mark, with its standard uncertainty. */
  measured_m: number;
  u_m: number;
  /** The texture's share of it, and passes made. */
  texture_m: number;
  passes: number;
}
export interface LearntStep extends LearntRemoval {
  key: string;
  n: number;
  /** The default it is shrunk to. */
  prior: { mean_m: number; sd_m: number };
  /** So many pairs are wanted before it may be used. */
  enough: boolean;
}
/** Fewer measured steps of one kind than this are shown but not offered. */
export const STEP_PAIRS_LEAST = 3;

/**
 * What one pass of each kind of step takes off here, from steps measured at a mark: texture taken out, shared among the passes, shrunk to
 * the default of that grit, backing and tool by {@link learnRemoval}.
 * @param priorOf the default of one pass by its key @throws RangeError for a figure out of range
 */
export function learnSteps(pairs: readonly StepPair[], priorOf: (key: string) => { mean_m: number; sd_m: number }): LearntStep[] {
  const keys = [...new Set(pairs.map((p) => p.key))].sort();
  return keys.map((key) => {
    const prior = priorOf(key);
    const own = pairs
      .filter((p) => p.key === key)
      .map((p, i) => {
        const passes = requireInteger(`pairs[${i}].passes`, p.passes, { min: 1, max: 60 });
        return {
          removal_m:
            (requireNumber(`pairs[${i}].measured_m`, p.measured_m) - requireNumber(`pairs[${i}].texture_m`, p.texture_m, { min: 0 })) /
            passes,
          u_m: requireNumber(`pairs[${i}].u_m`, p.u_m, { min: 0 }) / passes,
        };
      });
    return { key, n: own.length, prior, enough: own.length >= STEP_PAIRS_LEAST, ...learnRemoval(prior, own, STEP_SPREAD * prior.mean_m) };
  });
}
