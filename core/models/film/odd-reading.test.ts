import { oddReading } from "#core/models/film/odd-reading";

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
