import { requireNumber } from "../../kernel/guard";

/**
 * Mixes of a row of cards worth spraying before a job: the charted one in the middle, the others to both sides of it.
 * @param count odd @param step from one to the next @throws RangeError @example 0.85, three → 0.75, 0.85, 0.95
 */
export function rowOfShares(share: number, count = 3, step = 0.1): number[] {
  requireNumber("share", share, { min: 0, max: 1 });
  requireNumber("step", step, { above: 0, max: 0.5 });
  const out = Math.floor(requireNumber("count", count, { min: 1, max: 9 }) / 2) * step;
  const middle = Math.min(Math.max(0, 1 - out), Math.max(Math.min(1, out), share));
  return Array.from({ length: count }, (_, i) => Math.min(1, Math.max(0, Math.round(1000 * (middle - out + i * step)) / 1000)));
}
