import { requireNumber } from "../guard";

const SAMPLES = 200;

/**
 * Unevenness of overlapping passes whose fan is a symmetric Beta(2) profile: direct sum on 200 midpoints of one index.
 * @param overlap share of the fan covered again, 0 ≤ overlap ≤ 0.95
 * @returns coefficient of variation and greatest film over the mean. For 1/(1−overlap) = M whole, cv = 1/(√5·M²).
 * @throws RangeError @example patternRipple(0.5).cv // 0.1118
 */
export function patternRipple(overlap: number): { cv: number; peak: number; least: number } {
  const index = 1 - requireNumber("overlap", overlap, { min: 0, max: 0.95 });
  const film: number[] = [];
  for (let j = 0; j < SAMPLES; j++) {
    let sum = 0;
    for (let y = ((j + 0.5) / SAMPLES) * index; y < 1; y += index) sum += 6 * y * (1 - y);
    film.push(sum * index);
  }
  const mean = film.reduce((a, b) => a + b, 0) / SAMPLES;
  const variance = film.reduce((a, b) => a + (b - mean) ** 2, 0) / SAMPLES;
  return { cv: Math.sqrt(variance) / mean, peak: Math.max(...film) / mean, least: Math.min(...film) / mean };
}
