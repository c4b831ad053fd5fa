import fc from "fast-check";
import { COLOUR_COAT_KEYS, colourLayers, groundSaves } from "#core/models/prep/colour-coats";
import { PREFLIGHT, climateChecks } from "#core/models/prep/preflight";
import { UNDER_STEPS, USUAL_FILM_M, omissions, underLayers } from "#core/models/prep/under-clear";

const now = (change: Partial<Parameters<typeof climateChecks>[0]> = {}) => ({
  air_K: 295.15,
  part_K: 294.15,
  material_K: 294.15,
  relativeHumidity: 0.5,
  ...change,
});
const sheet = { name: "Clear T", window: null };
const stateOf = (change: Parameters<typeof now>[0], id: string, s: Parameters<typeof climateChecks>[1] = sheet) =>
  climateChecks(now(change), s).find((c) => c.id === id)?.state;

test("a usual day is good in every point", () => {
  expect(climateChecks(now(), sheet).map((c) => c.state)).toEqual(["good", "good", "good", "good"]);
});
test.each([
  ["a damp cold part", { part_K: 284, relativeHumidity: 0.9 }, "dew", "stop"],
  ["a part close to the dew point", { part_K: 292, relativeHumidity: 0.62 }, "dew", "caution"],
  ["a cold part", { part_K: 287 }, "part", "stop"],
  ["a hot booth", { air_K: 305 }, "air", "stop"],
  ["a cold booth", { air_K: 286, part_K: 286 }, "air", "stop"],
  ["paint from a cold store", { material_K: 285 }, "material", "stop"],
  ["warm material", { material_K: 299 }, "material", "caution"],
] as const)("%s is said", (_, change, id, state) => {
  expect(stateOf(change, id)).toBe(state);
});
test("the sheet's own window comes before the usual one; the worst stands first", () => {
  const warm = { name: "Slow", window: { low_K: 293.15, high_K: 308.15 } };
  expect(stateOf({ air_K: 305 }, "air", warm)).toBe("good");
  expect(stateOf({ air_K: 292 }, "air", warm)).toBe("stop");
  expect(climateChecks(now({ material_K: 285 }), sheet)[0]!.id).toBe("material");
});
test("what was not read is not judged; impossible climates are refused", () => {
  expect(
    climateChecks(now({ part_K: null, material_K: null }), sheet)
      .map((c) => c.id)
      .sort(),
  ).toEqual(["air", "dew"]);
  expect(() => climateChecks(now({ air_K: NaN }), sheet)).toThrow(RangeError);
});
test("every step and tick has its reason, and its own name", () => {
  for (const s of [...UNDER_STEPS, ...PREFLIGHT]) expect(s.why.length).toBeGreaterThan(10);
  expect(new Set(UNDER_STEPS.map((s) => s.id)).size).toBe(UNDER_STEPS.length);
});
test("films: told ones as told, untold ones usual, the newest entry of a step counts, bare steps add nothing", () => {
  const layers = underLayers([
    { step: "base", film_m: 12e-6 },
    { step: "seal", film_m: null },
    { step: "base", film_m: 20e-6 },
    { step: "clean", film_m: null },
  ]);
  expect(layers.map((l) => [l.step, l.how])).toEqual([
    ["seal", "usual"],
    ["base", "told"],
  ]);
  expect(layers[0]!.film_m).toBe(USUAL_FILM_M.seal![0]);
  expect(layers[1]!.film_m).toBe(20e-6);
  expect(layers[1]!.u_m).toBeCloseTo(4e-6, 15);
  expect(() => underLayers([{ step: "base", film_m: -1 }])).toThrow(RangeError);
});
test("what is missing when clear goes on is named", () => {
  expect(omissions([{ step: "sand" }, { step: "clean" }, { step: "dry" }], true).map((o) => o.step)).toEqual(["barrier", "cover"]);
  expect(omissions([{ step: "sand" }, { step: "clean" }, { step: "dry" }]).map((o) => o.step)).toEqual(["cover"]);
});

describe("colour, coat by coat", () => {
  test("films of one layer add with their doubt, and stand from below up", () => {
    const layers = colourLayers(["base", "seal", "base", "drop"]);
    expect(layers.map((l) => l.step)).toEqual(["seal", "base"]);
    expect(layers[1]!.film_m).toBeCloseTo(15e-6, 12); // 6.5 + 6.5 + 2: what a whole base is usually taken as
    expect(layers[1]!.u_m).toBeCloseTo(5e-6, 12);
    expect(colourLayers([])).toEqual([]);
  });
  test("ground coats save colour up to half, and nothing is lost between saved and left", () => {
    expect(groundSaves([], 3e-4)).toEqual({ saved_m3: 0, left_m3: 3e-4 });
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom(...COLOUR_COAT_KEYS), { maxLength: 8 }),
        fc.double({ min: 0, max: 0.01, noNaN: true }),
        (on, base) => {
          const { saved_m3, left_m3 } = groundSaves(on, base);
          expect(saved_m3 + left_m3).toBeCloseTo(base, 12);
          expect(saved_m3).toBeLessThanOrEqual(base / 2 + 1e-15);
        },
      ),
    );
    expect(() => groundSaves([], -1)).toThrow(RangeError);
  });
});
