import fc from "fast-check";
import { dewPoint, dewPointMargin } from "#core/models/climate/dew-point";

const K = (c: number) => c + 273.15;

/** Psychrometric tables as printed in coating handbooks, to 0.1 °C (from memory). */
test.each([
  [20, 0.5, 9.3],
  [25, 0.6, 16.7],
  [20, 0.8, 16.4],
  [30, 0.8, 26.2],
  [10, 0.9, 8.4],
])("air %p °C at humidity %p has its dew point at %p °C", (air, rh, expected) => {
  expect(dewPoint({ air_K: K(air), relativeHumidity: rh }) - 273.15).toBeCloseTo(expected, 1);
});

test("saturated air is its own dew point, and it rises with humidity", () => {
  fc.assert(
    fc.property(fc.double({ min: -20, max: 45, noNaN: true }), fc.double({ min: 0.05, max: 0.95, noNaN: true }), (c, rh) => {
      expect(dewPoint({ air_K: K(c), relativeHumidity: 1 })).toBeCloseTo(K(c), 9);
      expect(dewPoint({ air_K: K(c), relativeHumidity: rh + 0.04 })).toBeGreaterThan(dewPoint({ air_K: K(c), relativeHumidity: rh }));
    }),
  );
});

test("the margin counts from 3 °C above the dew point (ISO 8502-4, from memory)", () => {
  const m = dewPointMargin({ air_K: K(25), part_K: K(20), relativeHumidity: 0.6 });
  expect(m.lowestPart_K).toBeCloseTo(K(19.693149), 5);
  expect(m.margin_K).toBeCloseTo(0.306851, 5);
});

test.each([0, 1.01, NaN])("humidity %p is refused", (relativeHumidity) => {
  expect(() => dewPoint({ air_K: K(20), relativeHumidity })).toThrow("relativeHumidity");
});
