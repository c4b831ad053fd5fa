import { requireInteger, requireNumbers } from "../guard";

export interface Minimum {
  x: number[];
  value: number;
  evaluations: number;
}

/**
 * Lowest place of a function by the simplex of Nelder and Mead (1965, from memory; reflection 1, expansion 2, contraction and shrinking ½).
 * @param start first corner; the others lie `step` along each axis from it
 * @param options ends when corners differ by less than `xTolerance` and `valueTolerance`, or after `most` evaluations
 * @throws RangeError
 */
export function nelderMead(
  f: (x: readonly number[]) => number,
  start: readonly number[],
  {
    step = 0.25,
    most = 400,
    xTolerance = 1e-4,
    valueTolerance = 1e-6,
  }: { step?: number; most?: number; xTolerance?: number; valueTolerance?: number } = {},
): Minimum {
  requireNumbers("start", start, 1);
  requireInteger("most", most, { min: 1 });
  const n = start.length;
  let evaluations = 0;
  const at = (x: number[]) => {
    evaluations++;
    const value = f(x);
    return { x, value: Number.isNaN(value) ? Infinity : value };
  };
  const corners = [at([...start]), ...start.map((_, i) => at(start.map((v, k) => (k === i ? v + step : v))))];
  const between = (a: readonly number[], b: readonly number[], t: number) => a.map((v, k) => v + t * (b[k]! - v));
  while (evaluations < most) {
    corners.sort((a, b) => a.value - b.value);
    const [best, worst] = [corners[0]!, corners[n]!];
    const wide = Math.max(...corners.slice(1).map((c) => Math.max(...c.x.map((v, k) => Math.abs(v - best.x[k]!)))));
    if (wide <= xTolerance && worst.value - best.value <= valueTolerance) break;
    const middle = start.map((_, k) => corners.slice(0, n).reduce((a, c) => a + c.x[k]!, 0) / n);
    const mirrored = at(between(middle, worst.x, -1));
    if (mirrored.value < best.value) {
      const further = at(between(middle, worst.x, -2));
      corners[n] = further.value < mirrored.value ? further : mirrored;
    } else if (mirrored.value < corners[n - 1]!.value) corners[n] = mirrored;
    else {
      const outside = mirrored.value < worst.value;
      const nearer = at(between(middle, outside ? mirrored.x : worst.x, 0.5));
      if (nearer.value < Math.min(mirrored.value, worst.value)) corners[n] = nearer;
      else for (let i = 1; i <= n; i++) corners[i] = at(between(best.x, corners[i]!.x, 0.5));
    }
  }
  corners.sort((a, b) => a.value - b.value);
  return { ...corners[0]!, evaluations };
}
