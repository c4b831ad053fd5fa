import { containerAge, usedFirst } from "#core/models/product/container";
import { timeAtTemperature } from "#core/models/product/time-at-temperature";

const C = 273.15;
const DAY = 86_400_000;
const NOW = Date.UTC(2026, 4, 6, 8);

describe("a sheet's time at another temperature", () => {
  const pot = [
    { temperature_K: 20 + C, time_s: 7200 },
    { temperature_K: 30 + C, time_s: 3600 },
  ];
  test("pot life at 30 °C is shorter than at 20 °C, by the product's own figures, and falls between", () => {
    expect(timeAtTemperature(pot, 20 + C)).toEqual({ time_s: 7200, how: "sheet" });
    expect(timeAtTemperature(pot, 30 + C).time_s).toBe(3600);
    const between = timeAtTemperature(pot, 25 + C);
    expect(between.how).toBe("between");
    expect(between.time_s).toBeGreaterThan(3600);
    expect(between.time_s).toBeLessThan(7200);
    // Straight in ln t against 1/T, by hand: w = (1/298.15 − 1/293.15)/(1/303.15 − 1/293.15) = 0.50843.
    expect(between.time_s).toBeCloseTo(7200 * 0.5 ** 0.50839, 0);
  });
  test("10 K beyond is followed and said; further out stays at the limit and says outside", () => {
    expect(timeAtTemperature(pot, 36 + C).how).toBe("beyond");
    expect(timeAtTemperature(pot, 45 + C).how).toBe("outside");
    expect(timeAtTemperature(pot, 45 + C).time_s).toBeCloseTo(timeAtTemperature(pot, 40 + C).time_s, 9);
    expect(timeAtTemperature(pot, 5 + C).time_s).toBeCloseTo(timeAtTemperature(pot, 10 + C).time_s, 9);
  });
  test("one point does not follow temperature, and says so; nonsense is refused", () => {
    expect(timeAtTemperature(pot.slice(0, 1), 30 + C)).toEqual({ time_s: 7200, how: "only point" });
    expect(() => timeAtTemperature([], 293)).toThrow("points");
    expect(() => timeAtTemperature([pot[0]!, pot[0]!], 300)).toThrow("twice");
    expect(() => timeAtTemperature(pot, NaN)).toThrow("temperature_K");
  });
});

describe("opened cans (14 days for hardener: common practice)", () => {
  const can = (daysAgo: number | null, keeping: "shelf" | "cold" = "shelf", left_m3 = 5e-4) => ({
    opened_ms: daysAgo === null ? null : NOW - daysAgo * DAY,
    keeping,
    keepsDays: null,
    left_m3,
  });
  test.each([
    [13, "today"],
    [11, "soon"],
    [5, "good"],
    [15, "over"],
    [null, "good"],
  ] as const)("opened %p days ago: %s", (days, state) => {
    expect(containerAge(can(days), NOW).state).toBe(state);
  });
  test("sealed and cold it keeps longer; the product's own figure goes first; an empty can is empty", () => {
    expect(containerAge(can(15, "cold"), NOW).state).toBe("good");
    expect(containerAge({ ...can(15, "cold"), keepsDays: 10 }, NOW).state).toBe("over");
    expect(containerAge(can(1, "shelf", 0), NOW).state).toBe("empty");
  });
  test("the can that dies soonest is taken first; dead and empty ones come last", () => {
    const cans = [can(null), can(15), can(5), can(13), can(1, "shelf", 0)].map((c, i) => ({ id: i, age: containerAge(c, NOW) }));
    expect(usedFirst(cans).map((c) => c.id)).toEqual([3, 2, 0, 1, 4]);
  });
});
