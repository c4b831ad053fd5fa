import { choleskyFactor, choleskySolve, solveLowerInto } from "#core/kernel/stats/cholesky";

/** Worked by hand: A = [[4, 2], [2, 5]] has L = [[2, 0], [1, 2]]. */
const A = Float64Array.from([4, 2, 2, 5]);

test("a hand-worked factor and solution", () => {
  const l = choleskyFactor(A, 2);
  expect([...l]).toEqual([2, 0, 1, 2]);
  expect([...solveLowerInto(new Float64Array(2), l, [2, 5], 2)]).toEqual([1, 2]);
  expect([...choleskySolve(l, [8, 9], 2)]).toEqual([1.375, 1.25]);
});

test("a matrix on the edge (two equal rows) is eased by a jitter; a negative one is refused", () => {
  const l = choleskyFactor(Float64Array.from([1, 1, 1, 1]), 2);
  expect(l[3]!).toBeGreaterThan(0);
  expect(() => choleskyFactor(Float64Array.from([1, 0, 0, -1]), 2)).toThrow("matrix must be positive definite");
});
