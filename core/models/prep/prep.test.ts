import fc from "fast-check";
import { deposit } from "#core/models/spray/deposit";
import { sheetContradictions } from "#core/models/product/sheet";
import { productSheet } from "#core/models/product/sheet-schema";
import { dryingIn, humidFactor } from "#core/models/product/humid-flash";
import { hidingCoats } from "#core/models/prep/hiding";
import { LAYER_KEYS, type LayerKey } from "#core/models/prep/layer-names";
import { LAYERS, groundSaves, layersLaid, overcoatOf, usualFilm, usualReducer } from "#core/models/prep/layers";
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
  expect(omissions([{ step: "sand" }, { step: "clean" }, { step: "dry" }], { plastic: true }).map((o) => o.step)).toEqual([
    "barrier",
    "cover",
  ]);
  expect(omissions([{ step: "sand" }, { step: "clean" }, { step: "dry" }]).map((o) => o.step)).toEqual(["cover"]);
});

describe("coats below the clear", () => {
  const usual = (layer: LayerKey) => ({ layer, ...usualFilm(LAYERS[layer].sheet), how: "usual" as const });
  test("films of one layer add with their doubt, and stand from below up", () => {
    const layers = layersLaid((["base", "seal", "base", "drop"] as const).map(usual));
    expect(layers.map((l) => l.step)).toEqual(["seal", "base"]);
    expect(layers[1]!.film_m).toBeCloseTo(15e-6, 12); // 6.5 + 6.5 + 2: what a whole base is usually taken as
    expect(layers[1]!.u_m).toBeCloseTo(5e-6, 12);
    expect(layersLaid([])).toEqual([]);
  });
  test("ground coats save colour up to half, and nothing is lost between saved and left", () => {
    expect(groundSaves(0, 3e-4)).toEqual({ saved_m3: 0, left_m3: 3e-4 });
    fc.assert(
      fc.property(fc.nat(8), fc.double({ min: 0, max: 0.01, noNaN: true }), (ground, base) => {
        const { saved_m3, left_m3 } = groundSaves(ground, base);
        expect(saved_m3 + left_m3).toBeCloseTo(base, 12);
        expect(saved_m3).toBeLessThanOrEqual(base / 2 + 1e-15);
      }),
    );
    expect(() => groundSaves(0, -1)).toThrow(RangeError);
  });
  test.each(LAYER_KEYS)("%s: its usual sheet is one that the shelf would take, and its usual gun lays the film it says", (layer) => {
    const { sheet, gun } = LAYERS[layer];
    expect(productSheet.parse(sheet)).toEqual(sheet);
    expect(sheetContradictions(sheet)).toEqual([]);
    const { dry_m } = deposit(gun, {
      air_K: 293.15,
      speed: "medium",
      volumeSolids: sheet.volumeSolids,
      reducer: usualReducer(layer, sheet),
    });
    expect(dry_m).toBeGreaterThanOrEqual(sheet.filmPerCoatMin_m);
    expect(dry_m).toBeLessThanOrEqual(sheet.filmPerCoatMax_m);
  });
  test("a sealer is reduced more than its sheet's least, never beyond its most; nothing else is", () => {
    expect(usualReducer("seal", { reducerMin: 0, reducerMax: 0.3 })).toBe(0.25);
    expect(usualReducer("seal", { reducerMin: 0.1, reducerMax: 0.15 })).toBe(0.15);
    expect(usualReducer("seal", { reducerMin: 0, reducerMax: 0 })).toBe(0);
    expect(usualReducer("base", { reducerMin: 0.5, reducerMax: 0.9 })).toBe(0.5);
  });
  test("another product goes on by the sheet, else as is usual, never before its own flash", () => {
    expect(overcoatOf("base", { overcoat: { min_s: 60, max_s: 120 }, flashMin_s: 600 })).toEqual({ min_s: 60, max_s: 120 });
    expect(overcoatOf("base", { overcoat: null, flashMin_s: 600 }).min_s).toBe(1200);
    expect(overcoatOf("base", { overcoat: null, flashMin_s: 1800 }).min_s).toBe(1800);
  });
  // Evaporation by vapour-pressure deficit: half the room left in the air, twice the time.
  test.each([
    ["water", 0.5, 1],
    ["water", 0.75, 2],
    ["water", 0.9, 5],
    ["water", 0.3, 1],
    ["water", 1, 10],
    ["solvent", 0.9, 1],
    [null, 0.9, 1],
  ] as const)("%s at %s dries %s times as long", (carrier, humidity, factor) => {
    expect(humidFactor({ carrier }, humidity)).toBeCloseTo(factor, 9);
    const sheet = dryingIn({ ...LAYERS.base.sheet, carrier }, humidity);
    expect(sheet.flashMin_s).toBeCloseTo(factor * LAYERS.base.sheet.flashMin_s, 6);
    expect(sheet.overcoat!.min_s).toBeCloseTo(factor * LAYERS.base.sheet.overcoat!.min_s, 6);
    expect(sheetContradictions(sheet)).toEqual([]);
  });
  test.each([
    [{ coats: 3, ground: 0, shadeRight: null, sanded: false }, 3],
    [{ coats: 3, ground: 0, shadeRight: true, sanded: false }, 3],
    [{ coats: 3, ground: 0, shadeRight: false, sanded: false }, 4],
    [{ coats: 3, ground: 0, shadeRight: null, sanded: true }, 4],
    [{ coats: 4, ground: 2, shadeRight: null, sanded: false }, 2],
    [{ coats: 3, ground: 1, shadeRight: null, sanded: false }, 3],
    [{ coats: 1, ground: 2, shadeRight: null, sanded: false }, 1],
  ])("coats until it covers: %o takes %i", (asked, coats) => {
    expect(hidingCoats(asked).coats).toBe(coats);
  });
});
