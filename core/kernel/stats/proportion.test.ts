import fc from "fast-check";
import { wilsonInterval } from "./proportion";

// Values as statistics programs print them for Wilson's interval without continuity correction, from memory.
test.each([
  [0, 10, 0, 0.2775],
  [5, 10, 0.2366, 0.7634],
  [10, 20, 0.2993, 0.7007],
  [10, 10, 0.7225, 1],
])("%i of %i", (count, n, low, high) => {
  const at = wilsonInterval(count, n);
  expect(at.low).toBeCloseTo(low, 4);
  expect(at.high).toBeCloseTo(high, 4);
});

test("its ends are where the count is just z standard deviations away; it holds the count's own share and is narrower with more", () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 2000 }),
      fc.double({ min: 0, max: 1, noNaN: true }),
      fc.double({ min: 0.5, max: 4, noNaN: true }),
      (n, at, z) => {
        const count = Math.round(at * n);
        const { low, high } = wilsonInterval(count, n, z);
        expect(low).toBeLessThanOrEqual(count / n + 1e-12);
        expect(high).toBeGreaterThanOrEqual(count / n - 1e-12);
        for (const p of [low, high].filter((p) => p > 1e-12 && p < 1 - 1e-12))
          expect(Math.abs(count / n - p)).toBeCloseTo(z * Math.sqrt((p * (1 - p)) / n), 9);
        const more = wilsonInterval(4 * count, 4 * n, z);
        expect(more.high - more.low).toBeLessThan(high - low);
        const other = wilsonInterval(n - count, n, z);
        expect(other.low).toBeCloseTo(1 - high, 12);
      },
    ),
  );
});

test("a count outside its number, or of nothing, is refused", () => {
  for (const [count, n] of [
    [-1, 5],
    [6, 5],
    [0, 0],
    [1.5, 5],
  ] as const)
    expect(() => wilsonInterval(count, n)).toThrow(RangeError);
});
