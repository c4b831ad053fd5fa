import fc from "fast-check";
import { UNLOGGED_AIR_K } from "../models/trade-limits";
import { UNLOGGED_AIR, airAt, airLog, throughFrom } from "./air-log";

const H = 3_600_000;
const log = airLog([
  { from_ms: 2 * H, air_K: 300 },
  { from_ms: 5 * H, air_K: 288 },
]);

test("the first that was logged holds for all before it, each other from its moment on; nothing logged is 20 °C", () => {
  expect([-H, 0, 2 * H, 5 * H - 1, 5 * H, 99 * H].map((t) => airAt(log, t))).toEqual([300, 300, 300, 300, 288, 288]);
  expect(airLog([])).toBe(UNLOGGED_AIR);
  expect(airAt(UNLOGGED_AIR, 0)).toBe(UNLOGGED_AIR_K);
  expect(() => airAt(log, Number.NaN)).toThrow("at_ms");
});

test("of two logged for one moment the later counts, and the order they were told in does not matter", () => {
  const twice = airLog([
    { from_ms: 0, air_K: 290 },
    { from_ms: H, air_K: 295 },
    { from_ms: H, air_K: 296 },
  ]);
  expect(airAt(twice, H)).toBe(296);
  expect(
    airLog([
      { from_ms: 5 * H, air_K: 288 },
      { from_ms: 2 * H, air_K: 300 },
    ]),
  ).toEqual(log);
});

test("what takes an hour warm and three cold is a third through after an hour in the cold, and done sooner when it is warm again", () => {
  const hours = (air_K: number) => (air_K > 295 ? 3600 : 3 * 3600);
  const cold = airLog([
    { from_ms: 0, air_K: 288 },
    { from_ms: H, air_K: 300 },
  ]);
  // One hour of three in the cold, then two thirds of the warm hour.
  expect(throughFrom(cold, 0)(hours)).toBeCloseTo(3600 + (2 / 3) * 3600, 6);
  expect(throughFrom(cold, H)(hours)).toBeCloseTo(3600, 6);
  expect(() => throughFrom(cold, 0)(() => 0)).toThrow("duration_s");
});

test("at one temperature all through it takes what it takes, and begun later it is never done sooner", () => {
  const spans = fc.array(fc.tuple(fc.integer({ min: 0, max: 40 }), fc.integer({ min: 280, max: 310 })), { minLength: 1, maxLength: 6 });
  fc.assert(
    fc.property(spans, fc.integer({ min: 0, max: 50 }), fc.integer({ min: 1, max: 20 }), (told, from_h, later_h) => {
      const air = airLog(told.map(([h, air_K]) => ({ from_ms: h * H, air_K })));
      const takes = (air_K: number) => 7200 * 2 ** ((295 - air_K) / 10);
      const from = from_h * H;
      const begun = from + throughFrom(air, from)(takes) * 1000;
      const later = from + later_h * H + throughFrom(air, from + later_h * H)(takes) * 1000;
      expect(later).toBeGreaterThanOrEqual(begun - 1);
      const steady = airLog([{ from_ms: 0, air_K: 300 }]);
      expect(throughFrom(steady, from)(takes)).toBeCloseTo(takes(300), 6);
    }),
  );
});
