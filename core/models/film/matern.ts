/** Matérn 5/2 correlation at distance d for length ℓ (same unit). 1 at d = 0. */
export function matern52(distance: number, length: number): number {
  const r = (Math.sqrt(5) * distance) / length;
  return (1 + r + (r * r) / 3) * Math.exp(-r);
}
