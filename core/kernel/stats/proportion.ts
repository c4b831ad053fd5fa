import { requireInteger, requireNumber } from "../guard";

/** Two-sided 95 % of a normal. */
const Z_95 = 1.959964;

/**
 * Share that a count out of so many may stand for: Wilson's interval, all p with |count/n − p| ≤ z·√(p(1 − p)/n) (Wilson 1927).
 * @param z 1.96 for 95 % @throws RangeError for a count outside 0…n
 */
export function wilsonInterval(count: number, n: number, z = Z_95): { low: number; high: number } {
  requireInteger("n", n, { min: 1 });
  requireInteger("count", count, { min: 0, max: n });
  requireNumber("z", z, { above: 0 });
  const share = count / n;
  const w = (z * z) / n;
  const half = (z / Math.sqrt(n)) * Math.sqrt(share * (1 - share) + w / 4);
  return { low: Math.max(0, (share + w / 2 - half) / (1 + w)), high: Math.min(1, (share + w / 2 + half) / (1 + w)) };
}
