/**
 * Orchard's levelling factor for any depth, g(x) = (sinh x cosh x − x)/(cosh² x + x²), x = wave number × film (Orchard 1962). Written in
 * e^{−2x} so that deep films do not overflow; a series below 0.02 where the difference would lose its figures.
 */
export function orchardFactor(x: number): number {
  if (!(x >= 0)) throw new RangeError(`x must be >= 0, got ${x}`);
  if (x < 0.02) return (2 / 3) * x ** 3 * (1 - 1.8 * x * x);
  const y = Math.min(x, 300);
  const e = Math.exp(-2 * y);
  return (1 - e * e - 4 * y * e) / ((1 + e) ** 2 + 4 * y * y * e);
}

/** The factor against its thin-film limit ⅔x³: 1 for thin films, falling for deep ones. */
export const orchardCorrection = (x: number) => orchardFactor(x) / ((2 / 3) * x ** 3);
