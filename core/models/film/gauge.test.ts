import fc from "fast-check";
import { clearByDifference } from "#core/models/film/difference";
import {
  DEFAULT_GAUGE,
  outlierFlags,
  pooledRepeatability,
  spotFilm,
  twoPointCorrection,
  twoPointUncertainty,
} from "#core/models/film/gauge";
import { clearFromMixture } from "#core/models/film/stack-prior";
import { combineBudget } from "#core/models/film/uncertainty-budget";

const um = (x: number) => x * 1e-6;

describe("uncertainty budget", () => {
  /** JCGM 100:2008, example H.1 (end gauge), components in nm with their degrees of freedom, from memory. */
  const H1 = [
    { u: 25, degreesOfFreedom: 18 },
    { u: 9.7, degreesOfFreedom: 25.6 },
    { u: 2.9, degreesOfFreedom: 50 },
    { u: 16.6, degreesOfFreedom: 2 },
  ];
  test("GUM H.1: combined 32 nm, effective degrees of freedom 16, U99 about 93 nm", () => {
    const b = combineBudget(H1, 0.99);
    expect(b.u).toBeCloseTo(31.7, 1);
    expect(Math.floor(b.degreesOfFreedom)).toBe(16);
    expect(b.expanded).toBeGreaterThan(91);
    expect(b.expanded).toBeLessThan(94);
  });
  test("limits alone give the normal coverage factor", () => {
    expect(combineBudget([{ u: 2, degreesOfFreedom: Infinity }]).coverageFactor).toBeCloseTo(1.959964, 4);
  });
  test("a component without degrees of freedom is refused", () => {
    expect(() => combineBudget([{ u: 1, degreesOfFreedom: 0 }])).toThrow("lines[0].degreesOfFreedom");
    expect(() => combineBudget([{ u: -1, degreesOfFreedom: 3 }])).toThrow("lines[0].u");
  });
});

describe("a spot", () => {
  test("order of the readings does not matter, more of them never widen it", () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 60, max: 180, noNaN: true }), { minLength: 1, maxLength: 6 }), (readings) => {
        const there = spotFilm(readings.map(um));
        const back = spotFilm([...readings].reverse().map(um));
        expect(back.u_m).toBeCloseTo(there.u_m, 15);
        expect(back.mean_m).toBeCloseTo(there.mean_m, 15);
        const more = spotFilm([...readings.map(um), there.mean_m]);
        expect(more.uA_m).toBeLessThan(there.uA_m);
      }),
    );
  });
  test("repeatability starts from the gauge's own and follows the readings", () => {
    expect(pooledRepeatability([]).repeatability_m).toBe(DEFAULT_GAUGE.repeatability_m);
    const wild = pooledRepeatability([[um(100), um(140)]]);
    expect(wild.repeatability_m).toBeGreaterThan(um(8));
    expect(wild.degreesOfFreedom).toBe(7);
  });
  test("a far reading is asked for again, all equal ones are not", () => {
    expect(outlierFlags([100, 101, 99, 112, 100].map(um))).toEqual([false, false, false, true, false]);
    expect(outlierFlags([um(90), um(90), um(90)])).toEqual([false, false, false]);
  });
  test.each([[[]], [[NaN]], [[Infinity, 1]]])("readings %p are refused", (readings) => {
    expect(() => spotFilm(readings)).toThrow(RangeError);
  });
});

describe("two-point set-up", () => {
  test("zero and foil read true afterwards, and the foil's own error is what is left there", () => {
    const setup = { rawZero_m: um(1), rawFoil_m: um(51.5), foil_m: um(50.8) };
    expect(twoPointCorrection({ raw_m: um(1), ...setup })).toBe(0);
    expect(twoPointCorrection({ raw_m: um(51.5), ...setup })).toBeCloseTo(um(50.8), 15);
    const u = twoPointUncertainty({ film_m: um(50.8), foil_m: um(50.8), uZero_m: um(0.3), uRawFoil_m: 0, uFoil_m: um(0.6) });
    expect(u).toBeCloseTo(um(0.6), 15);
  });
  test("a foil that reads as the zero is refused", () => {
    expect(() => twoPointCorrection({ raw_m: um(9), rawZero_m: um(5), rawFoil_m: um(5), foil_m: um(50) })).toThrow("rawFoil_m");
  });
});

describe("clear by difference", () => {
  const input = { after_m: um(135), before_m: um(85), uA_after_m: um(1.15), uA_before_m: um(1.15) };
  test("another gauge or set-up costs certainty: 2.1 becomes 3.1 µm", () => {
    expect(clearByDifference(input).u_m).toBeCloseTo(um(2.11), 8);
    expect(clearByDifference({ ...input, correlation: 0 }).u_m).toBeCloseTo(um(3.13), 8);
  });
  test("a template instead of a free hand makes it surer", () => {
    expect(clearByDifference({ ...input, relocation_m: 0.003 }).u_m).toBeLessThan(clearByDifference(input).u_m);
  });
  test("clear may come out negative and is said so, not clipped", () => {
    expect(clearByDifference({ ...input, after_m: um(80) }).clear_m).toBeCloseTo(um(-5), 12);
  });
});

describe("clear without before-readings", () => {
  test("the better a total fits a history, the more it counts", () => {
    expect(clearFromMixture(um(110), um(2.5)).weights.factory).toBeGreaterThan(0.98);
    expect(clearFromMixture(um(170), um(2.5)).weights.refinish).toBeGreaterThan(0.99);
  });
  test("it is always less sure than by difference, and a known history is surer than none", () => {
    const unknown = clearFromMixture(um(135), um(2.5));
    expect(unknown.u_m).toBeGreaterThan(um(9));
    expect(clearFromMixture(um(135), um(2.5), { factory: 1, refinish: 0 }).u_m).toBeLessThan(unknown.u_m);
  });
  test("a total no stack explains keeps the belief; no belief at all is refused", () => {
    expect(clearFromMixture(um(4900), um(2.5)).weights.factory).toBeCloseTo(0.8, 9);
    expect(() => clearFromMixture(um(120), um(2.5), { factory: 0, refinish: 0 })).toThrow(RangeError);
  });
});
