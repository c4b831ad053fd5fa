import { requireNumber, requireNumbers } from "../../kernel/guard";

/**
 * Monotone cubic through points: slopes of Fritsch & Butland 1984 (weighted harmonic mean) inside, three-point one-sided and kept monotone
 * (Fritsch & Carlson 1980) at the ends. Never overshoots. Outside the points it stays at the end values.
 * @throws RangeError for fewer than 2 points or abscissae that do not rise.
 */
export function monotoneCubic(x: readonly number[], y: readonly number[]): (at: number) => number {
  requireNumbers("x", x, 2);
  requireNumbers("y", y, x.length);
  const n = x.length;
  const h = x.slice(1).map((v, i) => requireNumber(`x[${i + 1}] - x[${i}]`, v - x[i]!, { above: 0 }));
  const slope = h.map((step, i) => (y[i + 1]! - y[i]!) / step);
  const d = x.map((_, i) =>
    i === 0 ? end(h[0]!, h[1], slope[0]!, slope[1]) : i === n - 1 ? end(h[n - 2]!, h[n - 3], slope[n - 2]!, slope[n - 3]) : inner(i),
  );
  return (at) => {
    requireNumber("at", at);
    if (at <= x[0]!) return y[0]!;
    if (at >= x[n - 1]!) return y[n - 1]!;
    let i = 0;
    while (at > x[i + 1]!) i++;
    const t = (at - x[i]!) / h[i]!;
    const s = 1 - t;
    return y[i]! * (1 + 2 * t) * s * s + h[i]! * d[i]! * t * s * s + y[i + 1]! * t * t * (3 - 2 * t) - h[i]! * d[i + 1]! * t * t * s;
  };

  function inner(i: number): number {
    const [a, b] = [slope[i - 1]!, slope[i]!];
    if (a * b <= 0) return 0;
    const w1 = 2 * h[i]! + h[i - 1]!;
    const w2 = h[i]! + 2 * h[i - 1]!;
    return (w1 + w2) / (w1 / a + w2 / b);
  }
}

function end(h0: number, h1: number | undefined, s0: number, s1: number | undefined): number {
  if (h1 === undefined || s1 === undefined) return s0;
  const d = ((2 * h0 + h1) * s0 - h0 * s1) / (h0 + h1);
  if (Math.sign(d) !== Math.sign(s0)) return 0;
  return Math.sign(s0) !== Math.sign(s1) && Math.abs(d) > 3 * Math.abs(s0) ? 3 * s0 : d;
}
