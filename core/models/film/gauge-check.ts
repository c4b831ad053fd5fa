import { requireNumber, requireNumbers } from "../../kernel/guard";
import { median } from "../../kernel/stats/summary";
import { DEFAULT_GAUGE, type GaugeModel, outlierFlags, pooledRepeatability, twoPointUncertainty } from "./gauge";

/** Readings on bare metal and on a foil of known thickness, as the gauge showed them. */
export interface GaugeCheckInput {
  zero_m: readonly number[];
  onFoil_m: readonly number[];
  foil_m: number;
  uFoil_m: number;
  gauge?: GaugeModel;
  /** The last check of the same gauge, if there was one. */
  previous?: { zero_m: readonly number[]; onFoil_m: readonly number[] } | null;
}

export interface GaugeCheckResult {
  /** Medians: a slip among three moves none of them. */
  zero_m: number;
  uZero_m: number;
  onFoil_m: number;
  uOnFoil_m: number;
  /** What it reads too much on the foil. */
  foilError_m: number;
  /** Enough of the readings agree to say anything. */
  agree: boolean;
  /** Both errors within the gauge's own limits and the doubt of the readings. */
  within: boolean;
  /** Readings may be set right by it: they agree, and are no further off than a gauge drifts; beyond that it is another foil, or wants repair. */
  sets: boolean;
  /** Change since the last check; `drifted` when it is more than the readings' own scatter explains (2.6 standard deviations). */
  drift: { zero_m: number; onFoil_m: number; drifted: boolean } | null;
}

/** A gauge that is set up at all reads a foil between half of it and twice it; further off it is another foil, or a slip. Default of ours. */
export const FOIL_READ_AS = { least: 0.5, most: 2 } as const;

/** Why readings on bare metal and on a foil tell nothing of a gauge; null when they do. The door to the ledger asks it, so that whatever is kept can be judged. */
export function foilFault({
  zero_m,
  onFoil_m,
  foil_m,
}: Pick<GaugeCheckInput, "zero_m" | "onFoil_m" | "foil_m">): "no more than bare metal" | "not that foil" | null {
  const read_m = mean(onFoil_m) - mean(zero_m);
  if (!(read_m > 0)) return "no more than bare metal";
  return read_m >= FOIL_READ_AS.least * foil_m && read_m <= FOIL_READ_AS.most * foil_m ? null : "not that foil";
}

/** A gauge drifts no further than this: its slope, and its zero. Defaults of ours. */
export const SETS_RIGHT = { slope: 0.15, zero_m: 12e-6 } as const;

/** What is left lies within so many of the gauge's own scatter of its middle: two readings have no outlier between them. Default of ours. */
const AGREE_WITHIN = 5;

/** Readings to ask for again are left out, while most remain; their middle, and its doubt from how far they lie apart. */
function settled(name: string, readings_m: readonly number[], gauge: GaugeModel): { value_m: number; u_m: number; agree: boolean } {
  const flags = outlierFlags(requireNumbers(name, readings_m), gauge);
  const kept = readings_m.filter((_, i) => !flags[i]);
  const most = 2 * kept.length > readings_m.length;
  const used = most ? kept : readings_m;
  const value_m = median(used);
  const apart_m = Math.max(...used.map((x) => Math.abs(x - value_m)));
  return {
    value_m,
    u_m: pooledRepeatability([used], gauge).repeatability_m / Math.sqrt(used.length),
    agree: most && apart_m <= AGREE_WITHIN * gauge.repeatability_m,
  };
}

/** Readings of one foil, or of bare metal, that are asked for again: the one that is far from the others, or all where none is; null when they agree. */
export function askedAgain(readings_m: readonly number[], gauge: GaugeModel = DEFAULT_GAUGE): { odd: number | null } | null {
  const odd = outlierFlags(requireNumbers("readings_m", readings_m), gauge).indexOf(true);
  if (odd >= 0 && readings_m.length > 2) return { odd };
  return settled("readings_m", readings_m, gauge).agree ? null : { odd: null };
}

/** 99 % of a normal error lie within this many standard deviations. */
const SURE = 2.576;
const mean = (xs: readonly number[]) => xs.reduce((a, b) => a + b, 0) / xs.length;

/**
 * Set-up check of a film gauge: zero and foil against their true values and against the last check.
 * @throws RangeError for no readings, or a foil that reads no more than the bare metal
 */
export function gaugeCheck(input: GaugeCheckInput): GaugeCheckResult {
  const { gauge = DEFAULT_GAUGE, previous = null } = input;
  const zero = settled("zero_m", input.zero_m, gauge);
  requireNumber("onFoil_m", mean(requireNumbers("onFoil_m", input.onFoil_m)), { above: mean(input.zero_m) });
  const onFoil = settled("onFoil_m", input.onFoil_m, gauge);
  const zero_m = zero.value_m;
  const onFoil_m = onFoil.value_m;
  const foil_m = requireNumber("foil_m", input.foil_m, { above: 0, max: 5e-3 });
  requireNumber("uFoil_m", input.uFoil_m, { min: 0 });
  const scatter = (n: number) => gauge.repeatability_m / Math.sqrt(n);
  const foilError_m = onFoil_m - foil_m;
  const agree = zero.agree && onFoil.agree;
  // By what the gauge repeats to: readings far apart do not make a set-up pass.
  const within =
    agree &&
    Math.abs(zero_m) <= gauge.constant_m + SURE * scatter(input.zero_m.length) &&
    Math.abs(foilError_m) <=
      gauge.constant_m + gauge.proportional * foil_m + SURE * Math.hypot(scatter(input.onFoil_m.length), input.uFoil_m);
  const sets =
    agree && Math.abs(zero_m) <= SETS_RIGHT.zero_m && Math.abs(Math.log((onFoil_m - zero_m) / foil_m)) <= Math.log(1 + SETS_RIGHT.slope);
  let drift: GaugeCheckResult["drift"] = null;
  if (previous) {
    const dZero = zero_m - settled("previous.zero_m", previous.zero_m, gauge).value_m;
    const dFoil = onFoil_m - settled("previous.onFoil_m", previous.onFoil_m, gauge).value_m;
    const beyond = (d: number, n: number, before: number) => Math.abs(d) > SURE * Math.hypot(scatter(n), scatter(before));
    drift = {
      zero_m: dZero,
      onFoil_m: dFoil,
      drifted: beyond(dZero, input.zero_m.length, previous.zero_m.length) || beyond(dFoil, input.onFoil_m.length, previous.onFoil_m.length),
    };
  }
  return { zero_m, uZero_m: zero.u_m, onFoil_m, uOnFoil_m: onFoil.u_m, foilError_m, agree, within, sets, drift };
}

/** Standard uncertainty that a two-point set-up with this foil gives a film: smallest for a foil near it. @throws RangeError */
export function setupUncertainty(
  check: Pick<GaugeCheckResult, "uZero_m" | "uOnFoil_m">,
  foil: { foil_m: number; uFoil_m: number },
  film_m: number,
): number {
  return twoPointUncertainty({ film_m, ...foil, uZero_m: check.uZero_m, uRawFoil_m: check.uOnFoil_m });
}

/** Whether a foil is fit for a film: between half and twice of it, so that neither end is reached for. Default of ours. */
export const foilSuits = (foil_m: number, film_m: number): boolean => foil_m >= 0.5 * film_m && foil_m <= 2 * film_m;
