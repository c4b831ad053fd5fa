/**
 * Lower Cholesky factor of a symmetric positive definite matrix, row-major n×n. If a pivot is not positive (two readings on one
 * spot), a jitter of 1e-10, then 1e-9 … 1e-6 of the mean diagonal is added; beyond that it refuses.
 * @throws RangeError when the matrix is not positive definite even with the jitter.
 */
export function choleskyFactor(matrix: Float64Array, n: number): Float64Array {
  let mean = 0;
  for (let i = 0; i < n; i++) mean += matrix[i * n + i]! / n;
  for (const jitter of [0, 1e-10, 1e-9, 1e-8, 1e-7, 1e-6]) {
    const factor = tryFactor(matrix, n, jitter * mean);
    if (factor) return factor;
  }
  throw new RangeError("matrix must be positive definite");
}

function tryFactor(a: Float64Array, n: number, add: number): Float64Array | null {
  const l = new Float64Array(n * n);
  for (let i = 0; i < n; i++) {
    for (let j = 0; j <= i; j++) {
      let s = a[i * n + j]! + (i === j ? add : 0);
      for (let k = 0; k < j; k++) s -= l[i * n + k]! * l[j * n + k]!;
      if (i === j) {
        if (!(s > 0)) return null;
        l[i * n + i] = Math.sqrt(s);
      } else l[i * n + j] = s / l[j * n + j]!;
    }
  }
  return l;
}

/** Writes the solution of L·x = b into `x` (may be `b` itself). */
export function solveLowerInto(x: Float64Array, l: Float64Array, b: ArrayLike<number>, n: number): Float64Array {
  for (let i = 0; i < n; i++) {
    let s = b[i]!;
    for (let k = 0; k < i; k++) s -= l[i * n + k]! * x[k]!;
    x[i] = s / l[i * n + i]!;
  }
  return x;
}

/** Solution of (L·Lᵀ)·x = b. */
export function choleskySolve(l: Float64Array, b: ArrayLike<number>, n: number): Float64Array {
  const x = solveLowerInto(new Float64Array(n), l, b, n);
  for (let i = n - 1; i >= 0; i--) {
    let s = x[i]!;
    for (let k = i + 1; k < n; k++) s -= l[k * n + i]! * x[k]!;
    x[i] = s / l[i * n + i]!;
  }
  return x;
}
