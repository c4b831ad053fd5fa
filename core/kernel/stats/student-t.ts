import { requireNumber } from "../guard";

/** ln Γ(x), x > 0, Lanczos g = 7, n = 9 (coefficients of Godfrey, as printed in Numerical Recipes 3rd ed. §6.1, from memory). */
export function logGamma(x: number): number {
  const c = [
    0.99999999999980993, 676.5203681218851, -1259.1392167224028, 771.32342877765313, -176.61502916214059, 12.507343278686905,
    -0.13857109526572012, 9.9843695780195716e-6, 1.5056327351493116e-7,
  ];
  requireNumber("x", x, { above: 0 });
  if (x < 0.5) return Math.log(Math.PI / Math.sin(Math.PI * x)) - logGamma(1 - x);
  const y = x - 1;
  const t = y + 7.5;
  let a = c[0]!;
  for (let i = 1; i < 9; i++) a += c[i]! / (y + i);
  return 0.5 * Math.log(2 * Math.PI) + (y + 0.5) * Math.log(t) - t + Math.log(a);
}

const awayFromZero = (x: number) => (Math.abs(x) < 1e-300 ? 1e-300 : x);

/** Regularised incomplete beta I_x(a, b) by the modified Lentz fraction (Numerical Recipes §6.4, from memory). */
function incompleteBeta(x: number, a: number, b: number): number {
  if (x <= 0) return 0;
  if (x >= 1) return 1;
  if (x > (a + 1) / (a + b + 2)) return 1 - incompleteBeta(1 - x, b, a);
  const front = Math.exp(logGamma(a + b) - logGamma(a) - logGamma(b) + a * Math.log(x) + b * Math.log1p(-x)) / a;
  let c = 1;
  let d = 1 - ((a + b) * x) / (a + 1);
  d = 1 / awayFromZero(d);
  let f = d;
  for (let m = 1; m < 500; m++) {
    const even = (m * (b - m) * x) / ((a + 2 * m - 1) * (a + 2 * m));
    d = awayFromZero(1 + even * d);
    c = awayFromZero(1 + even / c);
    d = 1 / d;
    f *= c * d;
    const odd = (-(a + m) * (a + b + m) * x) / ((a + 2 * m) * (a + 2 * m + 1));
    d = 1 / awayFromZero(1 + odd * d);
    c = awayFromZero(1 + odd / c);
    f *= c * d;
    if (Math.abs(c * d - 1) < 1e-15) break;
  }
  return front * f;
}

/** Student t distribution function for real degrees of freedom. @throws RangeError */
export function studentTCdf(t: number, degreesOfFreedom: number): number {
  requireNumber("t", t);
  requireNumber("degreesOfFreedom", degreesOfFreedom, { above: 0 });
  const tail = 0.5 * incompleteBeta(degreesOfFreedom / (degreesOfFreedom + t * t), degreesOfFreedom / 2, 0.5);
  return t > 0 ? 1 - tail : tail;
}

/** Student t density. */
function studentTPdf(t: number, df: number): number {
  const log = logGamma((df + 1) / 2) - logGamma(df / 2) - 0.5 * Math.log(df * Math.PI) - ((df + 1) / 2) * Math.log1p((t * t) / df);
  return Math.exp(log);
}

/**
 * Quantile of Student t for real degrees of freedom: Newton on the distribution function, kept inside a bracket (a step that leaves it is
 * replaced by a halving), to 1e-12 relative.
 * @throws RangeError @example studentTQuantile(0.975, 10) // 2.2281389
 */
export function studentTQuantile(p: number, degreesOfFreedom: number): number {
  requireNumber("p", p, { above: 0, below: 1 });
  requireNumber("degreesOfFreedom", degreesOfFreedom, { above: 0 });
  if (p === 0.5) return 0;
  if (p < 0.5) return -studentTQuantile(1 - p, degreesOfFreedom);
  const key = `${p} ${degreesOfFreedom}`;
  const known = found.get(key);
  if (known !== undefined) return known;
  if (found.size >= MOST_FOUND) found.clear();
  const t = upperQuantile(p, degreesOfFreedom);
  found.set(key, t);
  return t;
}

/** Every spot of a panel asks again for the few that its readings have. */
const found = new Map<string, number>();
const MOST_FOUND = 1000;

function upperQuantile(p: number, degreesOfFreedom: number): number {
  let low = 0;
  let high = 2;
  while (studentTCdf(high, degreesOfFreedom) < p && high < 1e12) {
    low = high;
    high *= 2;
  }
  let t = (low + high) / 2;
  for (let i = 0; i < 100 && high - low > 1e-13 * high; i++) {
    const excess = studentTCdf(t, degreesOfFreedom) - p;
    if (excess === 0) break;
    if (excess < 0) low = t;
    else high = t;
    const newton = t - excess / studentTPdf(t, degreesOfFreedom);
    const next = newton > low && newton < high ? newton : (low + high) / 2;
    if (Math.abs(next - t) <= 1e-13 * t) break;
    t = next;
  }
  return t;
}
