import { requireNumber } from "../guard";

/**
 * Complementary error function, relative error below 1e-13 for |x| < 6.
 * Series for small |x|, Lentz continued fraction beyond (Abramowitz & Stegun 7.1.6, 7.1.14).
 * Do not write it as 1 − erf(x): the tail decides the chance of cutting through and would cancel to zero.
 */
function erfc(x: number): number {
  const a = Math.abs(x);
  if (a < 2) {
    let term = a;
    let sum = a;
    for (let n = 1; n < 80 && term > sum * 1e-17; n++) {
      term *= (2 * a * a) / (2 * n + 1);
      sum += term;
    }
    const erf = (2 / Math.sqrt(Math.PI)) * Math.exp(-a * a) * sum;
    return x >= 0 ? 1 - erf : 1 + erf;
  }
  // K = a + (1/2)/(a + 1/(a + (3/2)/(a + …)))
  let k = a;
  for (let n = 100; n >= 1; n--) k = a + n / 2 / k;
  const tail = Math.exp(-a * a) / (Math.sqrt(Math.PI) * k);
  return x >= 0 ? tail : 2 - tail;
}

/** Standard normal distribution function. @throws RangeError when z is not finite. @example normalCdf(1.96) // 0.9750021 */
export function normalCdf(z: number): number {
  return 0.5 * erfc(-requireNumber("z", z) / Math.SQRT2);
}

/** Standard normal density. */
export function normalPdf(z: number): number {
  return Math.exp(-0.5 * requireNumber("z", z) ** 2) / Math.sqrt(2 * Math.PI);
}

/** Value below which a share of a standard normal lies: bisection on the distribution function. @throws RangeError @example normalQuantile(0.975) // 1.959964 */
export function normalQuantile(share: number): number {
  const p = requireNumber("share", share, { above: 0, below: 1 });
  let [low, high] = [-9, 9];
  for (let i = 0; i < 70; i++) {
    const middle = (low + high) / 2;
    if (normalCdf(middle) < p) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/** Expected range of n standard normals by Blom's approximation to the extreme order statistics (1958, from memory). @throws RangeError */
export function expectedRange(n: number): number {
  return 2 * normalQuantile((requireNumber("n", n, { min: 2 }) - 0.375) / (n + 0.25));
}
