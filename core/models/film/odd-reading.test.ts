import fc from "fast-check";
import { farReadings, oddReading } from "./odd-reading";

const um = (x: number) => x * 1e-6;
const mil = (x: number) => x * 25.4e-6;

test("131 typed in a mil shop is asked about: 131 µm is 5.2 mil (once it was stored: −586 µm of clear on average)", () => {
  const odd = oddReading(mil(131), { unit: "mil" });
  expect(odd).toMatchObject({ why: "other unit" });
  expect(odd!.why === "other unit" && odd!.instead_m).toBeCloseTo(um(131), 12);
});
test("5.2 typed in a µm shop is asked about: 5.2 mil is 132 µm", () => {
  const odd = oddReading(um(5.2), { unit: "µm" });
  expect(odd!.why === "other unit" && odd!.instead_m).toBeCloseTo(um(132.08), 8);
});
test("nothing, 2.5 mm and less than what lay below the clear are asked about; usual films are not", () => {
  expect(oddReading(0, { unit: "µm" })).toEqual({ why: "nothing" });
  expect(oddReading(um(2500), { unit: "µm" })).toEqual({ why: "too much" });
  expect(oddReading(um(70), { unit: "µm", before_m: um(92) })).toEqual({ why: "less than before", before_m: um(92) });
  for (const film of [20, 90, 150, 400, 900]) expect(oddReading(um(film), { unit: "µm", before_m: um(20) })).toBeNull();
  for (const film of [0.8, 3.5, 5.9, 20]) expect(oddReading(mil(film), { unit: "mil" })).toBeNull();
  expect(oddReading(um(-3), { unit: "µm" })).toBeNull(); // the field refuses it
  expect(() => oddReading(NaN, { unit: "µm" })).toThrow(RangeError);
});

test("a figure far from the others of its spot, or from the other spots, is asked about; usual differences are not", () => {
  const spot = (film: number, ...others: number[]) => oddReading(um(film), { unit: "µm", spot_m: others.map(um) });
  expect(spot(480, 131, 129)).toEqual({ why: "far from its spot", others_m: expect.closeTo(um(130), 12) as number });
  expect(spot(163, 122)).toMatchObject({ why: "far from its spot" });
  for (const usual of [spot(131, 129, 130), spot(120, 131), spot(1000, 900)]) expect(usual).toBeNull();
  const others = (film: number, ...others_um: number[]) => oddReading(um(film), { unit: "µm", others_m: others_um.map(um) });
  expect(others(420, 131, 140, 150)).toEqual({ why: "far from the others", others_m: um(140) });
  expect(others(420, 131, 140)).toBeNull(); // two spots tell little
  expect(others(95, 131, 140, 150)).toBeNull();
});

test("of two that disagree both are far; one slip among three is the only one; readings of a usual spot are none", () => {
  expect(farReadings([1, 3000].map(um))).toEqual([true, true]);
  expect(farReadings([131, 480, 129].map(um))).toEqual([false, true, false]);
  fc.assert(
    fc.property(
      fc.double({ min: 30, max: 1500, noNaN: true }),
      fc.array(fc.double({ min: -9, max: 9, noNaN: true }), { minLength: 1, maxLength: 9 }),
      (film, off) => {
        expect(farReadings(off.map((d) => um(film + d)))).not.toContain(true);
      },
    ),
  );
  expect(() => farReadings([])).toThrow(RangeError);
  expect(() => farReadings([NaN])).toThrow(RangeError);
});
