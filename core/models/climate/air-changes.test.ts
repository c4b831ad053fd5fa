import { airClears_s } from "./air-changes";

// CDC guidelines, appendix B, table B.1: minutes to remove 99 % and 99.9 % (from memory).
test.each([
  [2, 138, 207],
  [4, 69, 104],
  [6, 46, 69],
  [8, 35, 52],
  [10, 28, 41],
  [12, 23, 35],
  [15, 18, 28],
  [20, 14, 21],
  [50, 6, 8],
])("%i air changes an hour: 99 %% gone in %i min, 99.9 %% in %i", (ach, ninetyNine_min, more_min) => {
  expect(Math.abs(airClears_s(ach) / 60 - ninetyNine_min)).toBeLessThanOrEqual(0.6);
  expect(Math.abs(airClears_s(ach, 0.001) / 60 - more_min)).toBeLessThanOrEqual(0.6);
});
test("refuses still air and nonsense", () => {
  for (const bad of [0, -1, Number.NaN, Infinity]) expect(() => airClears_s(bad)).toThrow(RangeError);
  expect(() => airClears_s(10, 0)).toThrow(RangeError);
});
