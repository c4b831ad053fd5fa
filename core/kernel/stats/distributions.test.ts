import fc from "fast-check";
import { jStat } from "jstat";
import { normalCdf, normalPdf } from "#core/kernel/stats/normal";
import { normals, seededRandom } from "#core/kernel/stats/random";
import { logGamma, studentTCdf, studentTQuantile } from "#core/kernel/stats/student-t";
import { median, summarise } from "#core/kernel/stats/summary";

describe("held against a general-purpose statistics library (jStat)", () => {
  test("normal distribution function", () => {
    fc.assert(
      fc.property(fc.double({ min: -5, max: 5, noNaN: true }), (z) => {
        expect(normalCdf(z)).toBeCloseTo(jStat.normal.cdf(z, 0, 1), 9);
      }),
    );
  });
  test("Student t, distribution and quantile, whole and broken degrees of freedom", () => {
    fc.assert(
      fc.property(fc.double({ min: -8, max: 8, noNaN: true }), fc.double({ min: 1, max: 200, noNaN: true }), (t, df) => {
        expect(studentTCdf(t, df)).toBeCloseTo(jStat.studentt.cdf(t, df), 7);
      }),
    );
    for (const df of [2, 5.5, 16, 114.036])
      for (const p of [0.6, 0.95, 0.975, 0.995]) expect(studentTQuantile(p, df)).toBeCloseTo(jStat.studentt.inv(p, df), 5);
  });
  test("log gamma", () => {
    for (const x of [0.1, 0.5, 1, 4.5, 30, 170]) expect(logGamma(x)).toBeCloseTo(jStat.gammaln(x), 8);
  });
});

describe("held against published tables", () => {
  test("normal tail, Abramowitz & Stegun table 26.1 (from memory)", () => {
    expect(normalCdf(1.96)).toBeCloseTo(0.9750021, 7);
    expect(normalCdf(0)).toBe(0.5);
    expect(normalCdf(-3)).toBeCloseTo(0.001349898, 9);
    expect(normalCdf(-6) / 9.865876e-10).toBeCloseTo(1, 5);
    expect(normalPdf(0)).toBeCloseTo(0.3989423, 7);
  });
  test("Student t, GUM table G.2 (from memory): k for 95 % and 99 %", () => {
    expect(studentTQuantile(0.975, 1)).toBeCloseTo(12.706, 2);
    expect(studentTQuantile(0.975, 10)).toBeCloseTo(2.228, 3);
    expect(studentTQuantile(0.995, 16)).toBeCloseTo(2.921, 3);
  });
});

test("the far tail does not cancel to zero and falls steadily", () => {
  for (let z = -30; z < -6; z++) expect(normalCdf(z)).toBeGreaterThan(normalCdf(z - 1));
});

test("draws repeat for a seed and have the moments of a standard normal", () => {
  const draws = (seed: number) => {
    const next = normals(seededRandom(seed));
    return Array.from({ length: 20_000 }, next);
  };
  expect(draws(7).slice(0, 50)).toEqual(draws(7).slice(0, 50));
  expect(draws(7).slice(0, 5)).not.toEqual(draws(8).slice(0, 5));
  const { mean, sd } = summarise(draws(1));
  expect(Math.abs(mean)).toBeLessThan(0.02);
  expect(Math.abs(sd - 1)).toBeLessThan(0.02);
});

test("a summary counts what is missing; a median needs something", () => {
  expect(summarise([1, NaN, 3])).toMatchObject({ n: 2, nMissing: 1, mean: 2, min: 1, max: 3 });
  expect(summarise([])).toMatchObject({ n: 0, mean: NaN });
  expect([median([3, 1, 2]), median([4, 1, 2, 3])]).toEqual([2, 2.5]);
  expect(() => median([])).toThrow(RangeError);
});

test.each([NaN, Infinity])("%p is refused everywhere", (bad) => {
  expect(() => normalCdf(bad)).toThrow(RangeError);
  expect(() => studentTQuantile(bad, 5)).toThrow(RangeError);
  expect(() => studentTQuantile(0.5, bad)).toThrow(RangeError);
  expect(() => studentTCdf(1, 0)).toThrow(RangeError);
});
