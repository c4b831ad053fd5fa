import { fitField } from "#core/models/film/field-fit";
import type { FilmObservation } from "#core/models/film/film-field";
import { nominalAcceptance, spotAcceptance } from "#core/models/film/acceptance";
import { learnRemoval, learnSpread } from "#core/models/correction/learn-removal";
import { nelderMead } from "#core/kernel/stats/nelder-mead";
import { expectedRange, normalCdf, normalQuantile } from "#core/kernel/stats/normal";
import { seededRandom } from "#core/kernel/stats/random";
import { jStat } from "jstat";

const UM = 1e-6;
const SQUARE: [number, number][] = [
  [0, 0],
  [1, 0],
  [1, 1],
  [0, 1],
];

test("Nelder–Mead finds the valley of Rosenbrock (1960) and the bottom of a quadratic", () => {
  const valley = nelderMead(([x, y]) => (1 - x!) ** 2 + 100 * (y! - x! * x!) ** 2, [-1.2, 1], {
    most: 2000,
    xTolerance: 1e-8,
    valueTolerance: 1e-14,
  });
  expect(valley.x[0]).toBeCloseTo(1, 5);
  expect(valley.x[1]).toBeCloseTo(1, 5);
  const bowl = nelderMead((x) => x.reduce((a, v, i) => a + (i + 1) * (v - i) ** 2, 3), [5, 5, 5]);
  expect(bowl.value).toBeCloseTo(3, 4);
  expect(nelderMead((x) => x[0]! ** 2, [9], { most: 5 }).evaluations).toBeLessThanOrEqual(7);
  expect(() => nelderMead(() => 0, [])).toThrow(RangeError);
});

test("a fitted field never explains the readings worse than its starting beliefs, and rough panels are found rougher than smooth ones", () => {
  const random = seededRandom(5);
  const panel = (spread: number): FilmObservation[] =>
    Array.from({ length: 12 }, (_, i) => {
      const at: [number, number] = [0.1 + 0.8 * random(), 0.1 + 0.8 * random()];
      const wave = Math.sin(at[0] * 9) * Math.cos(at[1] * 7);
      return [
        { at, layer: "before" as const, total_m: 90 * UM, n: 3 + (i % 2) },
        { at, layer: "after" as const, total_m: (150 + spread * wave) * UM, n: 3 },
      ];
    }).flat();
  const smooth = fitField(panel(1), SQUARE);
  const rough = fitField(panel(16), SQUARE);
  expect(rough.sdClear_m).toBeGreaterThan(1.5 * smooth.sdClear_m);
  const worst = fitField(panel(16), SQUARE, {}, { most: 1 });
  expect(rough.objective).toBeLessThan(worst.objective);
  expect(rough.evaluations).toBeLessThanOrEqual(125);
  expect(() => fitField([], SQUARE)).toThrow(RangeError);
});

test("acceptance labels nest: what a level accepts, the next accepts too (up to 5); means outside are never accepted", () => {
  const random = seededRandom(2);
  for (let i = 0; i < 300; i++) {
    const spots = Array.from({ length: 5 }, () => (35 + 50 * random()) * UM);
    const range = { least_m: 50 * UM, most_m: 70 * UM };
    const accepted = ([1, 2, 3, 4, 5] as const).map((level) => spotAcceptance(spots, { ...range, level }).accepted);
    accepted.slice(1).forEach((a, k) => expect(accepted[k]! && !a).toBe(false));
    const mean = spots.reduce((a, b) => a + b, 0) / 5;
    if (mean < range.least_m || mean > range.most_m) expect(accepted).toEqual([false, false, false, false, false]);
  }
  expect(() => spotAcceptance([], { least_m: 1e-6, most_m: 2e-6 })).toThrow(RangeError);
  expect(() => nominalAcceptance([5e-5], { nominal_m: 5e-5, most_m: 4e-5 })).toThrow(RangeError);
});

test("a shop's removal moves from the default to its own readings, and a negative one is kept as it is", () => {
  const prior = { mean_m: 4.6 * UM, sd_m: 1.5 * UM };
  expect(learnRemoval(prior, []).mean_m).toBeCloseTo(prior.mean_m, 15);
  const many = learnRemoval(
    prior,
    Array.from({ length: 200 }, () => ({ removal_m: 7 * UM, u_m: UM })),
  );
  expect(many.mean_m / UM).toBeCloseTo(7, 1);
  expect(many.priorWeight).toBeLessThan(0.01);
  expect(learnRemoval(prior, [{ removal_m: -UM, u_m: UM }]).mean_m).toBeLessThan(prior.mean_m);
  expect(() => learnRemoval(prior, [{ removal_m: NaN, u_m: UM }])).toThrow(RangeError);
  expect(learnSpread({ m: 1, k: 2, a: 3, b: 4 }, [])).toMatchObject({ m: 1, k: 2, a: 3, b: 4, degreesOfFreedom: 6 });
});

test("normal quantiles against a general-purpose library, and Blom's range against the printed table of d2", () => {
  for (const p of [1e-6, 0.01, 0.3, 0.5, 0.9, 0.999]) {
    expect(normalQuantile(p)).toBeCloseTo(jStat.normal.inv(p, 0, 1), 5);
    expect(normalCdf(normalQuantile(p))).toBeCloseTo(p, 12);
  }
  // d2 for n = 10: 3.078 (table of control chart constants, from memory); Blom is good to 1 %.
  expect(Math.abs(expectedRange(10) / 3.078 - 1)).toBeLessThan(0.01);
  expect(() => normalQuantile(0)).toThrow(RangeError);
});
