/** Mean, spread and how many were missing; missing (NaN) members are counted, never silently dropped. */
export function summarise(values: readonly number[]): { n: number; nMissing: number; mean: number; sd: number; min: number; max: number } {
  const there = values.filter((v) => Number.isFinite(v));
  const n = there.length;
  const mean = n === 0 ? NaN : there.reduce((a, b) => a + b, 0) / n;
  const sd = n < 2 ? NaN : Math.sqrt(there.reduce((a, b) => a + (b - mean) ** 2, 0) / (n - 1));
  return { n, nMissing: values.length - n, mean, sd, min: n ? Math.min(...there) : NaN, max: n ? Math.max(...there) : NaN };
}

/** Median of at least one number. */
export function median(values: readonly number[]): number {
  if (values.length === 0) throw new RangeError("values must have at least 1 member, got 0");
  const sorted = Float64Array.from(values).sort();
  const mid = sorted.length >> 1;
  return sorted.length % 2 ? sorted[mid]! : (sorted[mid - 1]! + sorted[mid]!) / 2;
}
