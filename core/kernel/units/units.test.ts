import fc from "fast-check";
import { fromSi, toSi } from "#core/kernel/units/convert";
import { show, showChance, showSpan, showWait, showWithUncertainty } from "#core/kernel/units/format";
import { parseQuantity } from "#core/kernel/units/parse";
import { IMPERIAL, METRIC, QUANTITIES, type Quantity } from "#core/kernel/units/quantities";

describe("conversions, NIST Special Publication 811 appendix B (exact definitions, from memory)", () => {
  test.each([
    ["film", 1, "mil", 25.4e-6],
    ["length", 1, "in", 0.0254],
    ["pressure", 1, "psi", 6894.757293168361],
    ["pressure", 1, "bar", 1e5],
    ["volume", 1, "fl oz", 29.5735295625e-6],
    ["temperature", 32, "°F", 273.15],
    ["temperature", 212, "°F", 373.15],
    ["temperature", -40, "°C", 233.15],
    ["temperature", -40, "°F", 233.15],
    ["temperatureDifference", 9, "°F", 5],
    ["speed", 10, "in/s", 0.254],
  ] as const)("%s: %p %s is %p in SI", (quantity, entered, unit, si) => {
    expect(toSi(quantity, entered, unit)).toBeCloseTo(si, 9);
    expect(fromSi(quantity, si, unit)).toBeCloseTo(entered, 9);
  });

  test("28 psi at the gun is 1.93 bar (common practice speaks of both)", () => {
    expect(fromSi("pressure", toSi("pressure", 28, "psi"), "bar")).toBeCloseTo(1.9305, 4);
  });

  test("there and back leaves every quantity as it was", () => {
    for (const quantity of Object.keys(QUANTITIES) as Quantity[])
      for (const unit of Object.keys(QUANTITIES[quantity].units))
        fc.assert(
          fc.property(fc.double({ min: -1e4, max: 1e4, noNaN: true }), (x) => {
            expect(fromSi(quantity, toSi(quantity, x, unit), unit)).toBeCloseTo(x, 6);
          }),
          { numRuns: 20 },
        );
  });

  test("an unknown unit and a number that is none are refused", () => {
    expect(() => toSi("film", 1, "furlong")).toThrow("unit must be one of µm, mil for film, got furlong");
    expect(() => toSi("film", 1, "toString")).toThrow(RangeError);
    expect(() => toSi("film", NaN, "µm")).toThrow(RangeError);
  });
});

describe("typed numbers", () => {
  test.each([
    ["131", 131e-6],
    [" 131 ", 131e-6],
    ["5,1 mil", 129.54e-6],
    ["5.1mil", 129.54e-6],
    ["131 um", 131e-6],
    ["131 microns", 131e-6],
    ["-3", -3e-6],
    [".5", 0.5e-6],
  ])("%p is read", (text, si) => {
    const parsed = parseQuantity("film", text, "µm");
    expect(parsed).toMatchObject({ ok: true });
    expect(parsed.ok && parsed.si).toBeCloseTo(si, 12);
  });

  test("a decimal comma is as good as a point, and the reading is kept as typed", () => {
    expect(parseQuantity("film", "5,12", "mil")).toEqual({ ok: true, si: toSi("film", 5.12, "mil"), entered: "5,12", unit: "mil" });
  });

  test.each([
    ["", "Type a number"],
    ["abc", '"abc" is not a number'],
    ["1,234.5", '"1,234.5" has two separators; type it without a thousands mark'],
    ["12 km", '"km" is not a unit here; use µm or mil'],
    [".", '"." is not a number'],
  ])("%p is refused: %s", (text, message) => {
    expect(parseQuantity("film", text, "µm")).toEqual({ ok: false, message });
  });
});

describe("shown figures", () => {
  test("value and uncertainty are rounded together, two figures when the uncertainty starts with 1", () => {
    expect(showWithUncertainty("film", 50.04e-6, 2.11e-6, METRIC)).toEqual({ text: "50 ± 4", unit: "µm" });
    expect(showWithUncertainty("film", 8.8875e-6, 1.3178e-6, METRIC).text).toBe("9 ± 3");
    expect(showWithUncertainty("film", 50e-6, 2.1e-6, IMPERIAL)).toEqual({ text: "1.97 ± 0.17", unit: "mil" });
  });

  test("a missing figure is a dash, never zero; minus zero is zero", () => {
    expect(show("film", null, METRIC).text).toBe("–");
    expect(show("film", NaN, METRIC).text).toBe("–");
    expect(show("film", -1e-9, METRIC).text).toBe("0.0");
    expect(show("film", -2e-6, METRIC).text).toBe("−2.0");
  });

  test("chances read as a painter says them", () => {
    expect([0, 0.0004, 0.012, 0.025, 0.121, 0.37, 0.999, NaN].map(showChance)).toEqual([
      "less than 1 in 100",
      "less than 1 in 100",
      "1 in 85",
      "1 in 40",
      "1 in 8",
      "37 in 100",
      "almost certain",
      "not known",
    ]);
  });

  test("waits to plan with are no finer than minutes", () => {
    expect([0, 3414, 3599, 22500, 75 * 86400].map(showWait)).toEqual(["0 min", "57 min", "1 h 00", "6 h 15", "75 d"]);
  });
  test("spans of time", () => {
    expect([0, 65, 3599, 3720, 90 * 3600, -30].map(showSpan)).toEqual(["0:00", "1:05", "59:59", "1 h 02", "3 d", "0:30"]);
  });
});

test.each([
  ["90", 5400],
  ["12 h", 43_200],
  ["1,5 hours", 5400],
  ["2 days", 172_800],
  ["overnight", 57_600],
  ["Over night", 57_600],
])("a duration as people write it: %s", (typed, seconds) => {
  expect(parseQuantity("duration", typed, "min")).toMatchObject({ ok: true, si: seconds });
});

test.each(["8–10 min", "8-10", "8 to 10 min"])("a span is no figure, and is told so: %s", (typed) => {
  expect(parseQuantity("duration", typed, "min")).toEqual({ ok: false, message: `"${typed}" is a span; type one figure` });
});
