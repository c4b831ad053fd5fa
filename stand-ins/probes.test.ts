import { cureFromLog, timeToAge } from "#core/models/cure/bake-plan";
import { standInClimateProbe } from "#stand-ins/climate-probe";
import { standInOvenProbe } from "#stand-ins/oven-probe";
import { TEST_SHEET } from "#core/panel/testing/test-ledger";

const HOUR_MS = 3_600_000;
const sheet = { ...TEST_SHEET, tape_s: 28800, bake: { part_K: 333.15, time_s: 1800 } };
const PLAN = { room_K: 293.15, air_K: 338.15, purge_s: 1050, ramp_s: 600, hold_s: 2400 };

test("climate probe: near its mean, the part behind the air, steps of 0.1 K and 1 %, the same seed the same readings", () => {
  const readings = Array.from({ length: 60 }, (_, i) => standInClimateProbe({ seed: 3 }).read(i * 0.1 * HOUR_MS));
  for (const r of readings) {
    expect(Math.abs(r.air_K - 295.15)).toBeLessThan(1.6);
    expect(Math.abs(r.relativeHumidity * 100 - Math.round(r.relativeHumidity * 100))).toBeLessThan(1e-9);
    expect(Math.abs(r.air_K * 10 - Math.round(r.air_K * 10))).toBeLessThan(1e-6);
  }
  const mean = (f: (r: (typeof readings)[number]) => number) => readings.reduce((a, r) => a + f(r), 0) / readings.length;
  expect(mean((r) => r.part_K)).toBeLessThan(mean((r) => r.air_K));
  expect(standInClimateProbe({ seed: 3 }).read(HOUR_MS)).toEqual(standInClimateProbe({ seed: 3 }).read(HOUR_MS));
  expect(() => standInClimateProbe({ seed: 1, humidity: 2 })).toThrow(RangeError);
});
test("oven probe: follows the air with its lag, never above the oven, cools again; marked simulated", () => {
  const probe = standInOvenProbe({ seed: 5 });
  const log = probe.log(PLAN);
  expect(probe.simulated).toBe(true);
  expect(Math.max(...log.map((s) => s.part_K))).toBeLessThan(PLAN.air_K + 1.5);
  expect(Math.max(...log.map((s) => s.part_K))).toBeGreaterThan(PLAN.air_K - 6);
  expect(log.at(-1)!.part_K).toBeLessThan(PLAN.room_K + 3);
  log.slice(1).forEach((s, i) => expect(s.at_s).toBeGreaterThan(log[i]!.at_s));
});
test("cure by a log: at 20 °C the age is the time itself; the sheet's own bake reaches its own sanding point", () => {
  const still = [0, 3600, 7200].map((at_s) => ({ at_s, part_K: 293.15 }));
  const cool = cureFromLog(sheet, still);
  expect(cool.age_s).toBeCloseTo(7200, 6);
  expect(cool.stages.find((s) => s.stage === "sand")).toEqual({ stage: "sand", at_s: expect.closeTo(57600, 3) as number, reached: false });
  const baked = cureFromLog(
    sheet,
    [0, 900, 1800].map((at_s) => ({ at_s, part_K: 333.15 })),
  );
  expect(baked.age_s).toBeCloseTo(57600, 3);
  expect(baked.stages.find((s) => s.stage === "sand")!.reached).toBe(true);
  expect(baked.stages.find((s) => s.stage === "polish")).toEqual({ stage: "polish", at_s: null, reached: false });
});
test("the logged stage agrees with the forecast of a bake whose part lags as the probe's", () => {
  const log = standInOvenProbe({ seed: 8, off_K: 0, lag_s: 150 }).log(PLAN);
  const sand = cureFromLog(sheet, log).stages.find((s) => s.stage === "sand")!;
  const energy = (8.314462618 * Math.log(57600 / 1800)) / (1 / 293.15 - 1 / 333.15);
  expect(sand.at_s! / timeToAge(PLAN, 57600, energy, 150)).toBeCloseTo(1, 1);
  expect(() => cureFromLog(sheet, log.slice(0, 1))).toThrow(RangeError);
  expect(() => cureFromLog(sheet, [log[5]!, log[2]!])).toThrow(RangeError);
});
