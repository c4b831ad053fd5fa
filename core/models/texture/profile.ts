import { requireNumber, requireNumbers } from "../../kernel/guard";

export interface ProfileParameters {
  /** Arithmetic and root-mean-square height about the mean line, peak to valley, skewness, kurtosis (ISO 21920-2 forms). */
  Ra: number;
  Rq: number;
  Rt: number;
  Rsk: number;
  Rku: number;
  /** Mean spacing of upward crossings of the mean line; null with fewer than two. */
  Rsm: number | null;
  /** Root-mean-square slope by central differences over the inner points. */
  Rdq: number;
}

/** Parameters of a profile with even spacing; heights and spacing in one unit. @throws RangeError for fewer than 3 points. */
export function profileParameters(profile: readonly number[], spacing: number): ProfileParameters {
  requireNumbers("profile", profile, 3);
  requireNumber("spacing", spacing, { above: 0 });
  const n = profile.length;
  const middle = profile.reduce((a, z) => a + z, 0) / n;
  const z = profile.map((v) => v - middle);
  const moment = (k: number) => z.reduce((a, v) => a + v ** k, 0) / n;
  const Rq = Math.sqrt(moment(2));
  const crossings: number[] = [];
  for (let i = 1; i < n; i++) {
    const [a, b] = [z[i - 1]!, z[i]!];
    if (a < 0 && b >= 0) crossings.push((i - 1 + a / (a - b)) * spacing);
  }
  let slopes = 0;
  for (let i = 1; i < n - 1; i++) slopes += ((z[i + 1]! - z[i - 1]!) / (2 * spacing)) ** 2;
  return {
    Ra: z.reduce((a, v) => a + Math.abs(v), 0) / n,
    Rq,
    Rt: Math.max(...z) - Math.min(...z),
    Rsk: Rq > 0 ? moment(3) / Rq ** 3 : 0,
    Rku: Rq > 0 ? moment(4) / Rq ** 4 : 0,
    Rsm: crossings.length > 1 ? (crossings.at(-1)! - crossings[0]!) / (crossings.length - 1) : null,
    Rdq: Math.sqrt(slopes / (n - 2)),
  };
}
