import { spreadingRate, wetFromDry } from "#core/models/mix/spreading-rate";
import { toSi } from "#core/kernel/units/convert";

test("1 L of solids covers 1000 m² at 1 µm (volume balance)", () => {
  expect(spreadingRate({ volumeSolids: 1, dryFilm_m: 1e-6 }) / 1000).toBeCloseTo(1000, 9);
});

test("1 US gallon of solids covers 1604 ft² at 1 mil (handbook constant of the coatings trade)", () => {
  const gallon_m3 = 231 * 0.0254 ** 3;
  const ft2_m2 = 0.3048 ** 2;
  const perGallon_ft2 = (spreadingRate({ volumeSolids: 1, dryFilm_m: toSi("film", 1, "mil") }) * gallon_m3) / ft2_m2;
  expect(perGallon_ft2).toBeCloseTo(1604.17, 2);
});

test("45 % solids at 50 µm dry: 9 m²/L and 111 µm wet", () => {
  expect(spreadingRate({ volumeSolids: 0.45, dryFilm_m: 50e-6 }) / 1000).toBeCloseTo(9, 9);
  expect(wetFromDry({ volumeSolids: 0.45, dryFilm_m: 50e-6 })).toBeCloseTo(111.111e-6, 9);
});

test.each([0, 1.2, NaN])("solids of %p are refused", (volumeSolids) => {
  expect(() => spreadingRate({ volumeSolids, dryFilm_m: 5e-5 })).toThrow("volumeSolids");
});
