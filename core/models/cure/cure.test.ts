import type { ProductSheet } from "#core/models/product/sheet";
import { TEST_SHEET } from "#core/panel/testing/test-ledger";
import fc from "fast-check";
import { bakeLog, boothAir, cureForecast, tooHot, timeToAge } from "#core/models/cure/bake-plan";
import { cureEnergy, cureRate, equivalentAge, partTemperature } from "#core/models/cure/cure-age";

const C = 273.15;
const HOUR = 3600;
const at20 = { part_K: 20 + C, time_s: 16 * HOUR };
const energy_J_mol = cureEnergy(at20, { part_K: 60 + C, time_s: 1800 });
const options = { reference_K: 20 + C, energy_J_mol };
const air = { purge_s: 0, ramp_s: 0, hold_s: 0, air_K: 20 + C, room_K: 20 + C };
const bake = { purge_s: 1050, ramp_s: 600, hold_s: 1800, air_K: 60 + C, room_K: 20 + C };
const sheet: ProductSheet = { ...TEST_SHEET, polish_s: 86400, bake: { part_K: 60 + C, time_s: 1800 } };

describe("equivalent age (Arrhenius form; schedules are common practice)", () => {
  test("16 h at 20 °C and 30 min at 60 °C are 70.36 kJ/mol, a factor of 2.59 from 20 to 30 °C", () => {
    expect(energy_J_mol).toBeCloseTo(70355.714, 2);
    expect(cureRate(30 + C, options)).toBeCloseTo(2.59, 2);
  });
  test("then 15 min at 60 °C is 8.0 h at 20 °C, 30 min at 49 °C 6.72 h, 18 min at 48 °C 3.72 h", () => {
    const age = (min: number, T: number) =>
      equivalentAge(
        [
          { at_s: 0, part_K: T + C },
          { at_s: min * 60, part_K: T + C },
        ],
        options,
      ) / HOUR;
    expect(age(15, 60)).toBeCloseTo(8, 6);
    expect(age(30, 49)).toBeCloseTo(6.72, 2);
    expect(age(18, 48)).toBeCloseTo(3.72, 2);
  });
  test("at the reference temperature age is time; hotter is never slower", () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 60, noNaN: true }), fc.double({ min: 0, max: 60, noNaN: true }), (a, b) => {
        const [low, high] = a < b ? [a, b] : [b, a];
        expect(cureRate(high + C, options)).toBeGreaterThanOrEqual(cureRate(low + C, options));
      }),
    );
    expect(cureRate(20 + C, options)).toBe(1);
  });
  test("a part lags the air: after one lag it has come 63 % of the way", () => {
    expect(partTemperature({ air_K: 60 + C, start_K: 20 + C, time_s: 150, lag_s: 150 }) - C).toBeCloseTo(60 - 40 / Math.E, 9);
    expect(() => partTemperature({ air_K: 60 + C, start_K: 20 + C, time_s: -1, lag_s: 150 })).toThrow("time_s");
  });
  test("points of one temperature and a log that runs backwards are refused", () => {
    expect(() => cureEnergy(at20, at20)).toThrow("points must differ");
    expect(() =>
      equivalentAge(
        [
          { at_s: 10, part_K: 300 },
          { at_s: 0, part_K: 300 },
        ],
        options,
      ),
    ).toThrow("log[1]");
  });
});

describe("bake plans and ready times", () => {
  test("in the air at 20 °C the times are the sheet's own", () => {
    const f = cureForecast(sheet, air);
    const by = Object.fromEntries(f.stages.map((s) => [s.stage, s]));
    expect(by.sand!.at_s).toBeCloseTo(57600, 3);
    expect(by.polish!.at_s).toBeCloseTo(86400, 3);
    expect(by.tape!.at_s).toBeNull();
    expect(f.warnings).toEqual([]);
  });
  test("a full bake makes it ready to sand soon after, and range holds the expectation", () => {
    const sand = cureForecast(sheet, bake).stages.find((s) => s.stage === "sand")!;
    expect(sand.at_s!).toBeLessThan(2 * HOUR);
    expect(sand.early_s!).toBeLessThan(sand.at_s!);
    expect(sand.late_s!).toBeGreaterThan(sand.at_s!);
  });
  test("the booth purges, ramps, holds and cools; the part never outruns the air on the way up", () => {
    expect([0, 1050, 1350, 2000, 4000].map((t) => Math.round(boothAir(bake, t) - C))).toEqual([20, 20, 40, 60, 20]);
    for (const s of bakeLog(bake, 150).filter((x) => x.at_s < 3400)) expect(s.part_K).toBeLessThanOrEqual(boothAir(bake, s.at_s) + 1e-9);
  });
  test("a longer bake is never ready later", () => {
    fc.assert(
      fc.property(fc.integer({ min: 5, max: 60 }), fc.integer({ min: 0, max: 30 }), (hold, more) => {
        const ready = (min: number) => timeToAge({ ...bake, hold_s: min * 60 }, 57600, energy_J_mol, 150);
        expect(ready(hold + more)).toBeLessThanOrEqual(ready(hold) + 1);
      }),
      { numRuns: 40 },
    );
  });
  test("what lies outside the model is said: no bake on the sheet, a mistyped one, too hot, heat too soon, a cold room", () => {
    const warn = (s: typeof sheet, p: typeof bake) => cureForecast(s, p).warnings.join(" ");
    expect(warn({ ...sheet, bake: null }, air)).toContain("no bake");
    expect(warn({ ...sheet, bake: { part_K: 60 + C, time_s: 40000 } }, air)).toContain("outside 40 to 120");
    expect(() => cureForecast(sheet, { ...bake, air_K: 80 + C })).toThrow("air_K");
    expect(() => cureForecast({ ...sheet, bake: null }, bake)).toThrow("air_K");
    expect(tooHot(sheet, 70 + C)).toBe(false);
    expect(tooHot(sheet, 71 + C)).toBe(true);
    expect(warn(sheet, { ...bake, purge_s: 300 })).toContain("traps solvent");
    expect(warn(sheet, { ...air, room_K: 5 + C })).toContain("cure may stop");
  });
});
