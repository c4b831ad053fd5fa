import { requireNumber } from "../../kernel/guard";
import { logGamma } from "../../kernel/stats/student-t";

const SAMPLES = 200;

export interface Ripple {
  /** Standard deviation over mean. */
  cv: number;
  /** Greatest and least film over the mean. */
  peak: number;
  least: number;
}

/**
 * Unevenness of overlapping passes whose fan is a symmetric Beta(β) profile: direct sum on 200 midpoints of one index.
 * @param overlap share of the fan covered again, 0 ≤ overlap ≤ 0.95 @param beta 2 for the usual fan
 * @returns for β = 2 and 1/(1−overlap) = M whole, cv = 1/(√5·M²).
 * @throws RangeError @example patternRipple(0.5).cv // 0.1118
 */
export function patternRipple(overlap: number, beta = 2): Ripple {
  const index = 1 - requireNumber("overlap", overlap, { min: 0, max: 0.95 });
  const power = requireNumber("beta", beta, { min: 1, max: 20 }) - 1;
  const norm = Math.exp(logGamma(2 * beta) - 2 * logGamma(beta));
  const film: number[] = [];
  for (let j = 0; j < SAMPLES; j++) {
    let sum = 0;
    for (let y = ((j + 0.5) / SAMPLES) * index; y < 1; y += index) sum += norm * (y * (1 - y)) ** power;
    film.push(sum * index);
  }
  const mean = film.reduce((a, b) => a + b, 0) / SAMPLES;
  const variance = film.reduce((a, b) => a + (b - mean) ** 2, 0) / SAMPLES;
  return { cv: Math.sqrt(variance) / mean, peak: Math.max(...film) / mean, least: Math.min(...film) / mean };
}
