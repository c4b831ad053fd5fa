import * as d3 from "d3";
import fc from "fast-check";
import { scaleLinear, scaleLog } from "./linear-scale";

/** Figures as a drawing has them: thousandths, not the denormal numbers at which rounding alone decides. */
const figure = fc.integer({ min: -1_000_000, max: 1_000_000 }).map((n) => n / 1000);
const pair = fc.tuple(figure, figure).filter(([a, b]) => Math.abs(a - b) > 1e-3);
const close = (a: number, b: number) => Math.abs(a - b) <= 1e-6 * Math.max(1, Math.abs(a), Math.abs(b));

test("it answers as D3's own linear scale does: place, figure, ticks, clamped and rounded", () => {
  fc.assert(
    fc.property(pair, pair, figure, fc.integer({ min: 1, max: 12 }), (domain, range, value, count) => {
      const ours = scaleLinear(domain, range);
      const theirs = d3.scaleLinear(domain, range);
      expect(close(ours(value), theirs(value))).toBe(true);
      expect(close(ours.invert(value), theirs.invert(value))).toBe(true);
      expect(ours.ticks(count)).toEqual(theirs.ticks(count));
      expect(close(ours.clamp(true)(value), theirs.copy().clamp(true)(value))).toBe(true);
      expect(close(ours.clamp(true).invert(value), theirs.copy().clamp(true).invert(value))).toBe(true);
      expect(close(ours.nice()(value), theirs.copy().nice()(value))).toBe(true);
    }),
  );
});

test("a domain of one figure lies in the middle of the range, as in D3", () => {
  expect(scaleLinear([3, 3], [0, 10])(3)).toBe(d3.scaleLinear([3, 3], [0, 10])(3));
});

test("a log scale answers as D3's own, held to its range; nothing at or below zero has a logarithm", () => {
  const positive = fc.double({ min: 1e-3, max: 1e4, noNaN: true });
  fc.assert(
    fc.property(
      fc.tuple(positive, positive).filter(([a, b]) => Math.abs(a - b) > 1e-3),
      positive,
      (domain, value) => {
        expect(close(scaleLog(domain, [0, 200])(value), d3.scaleLog(domain, [0, 200]).clamp(true)(value))).toBe(true);
      },
    ),
  );
  expect(() => scaleLog([0, 10], [0, 1])).toThrow(RangeError);
  expect(() => scaleLog([NaN, 10], [0, 1])).toThrow(RangeError);
});
