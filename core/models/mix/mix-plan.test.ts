import { USUAL_GUN } from "#core/models/spray/usual-gun";
import { flowConditions } from "#core/coat/setting";
import { hardenersToday } from "#core/models/flow/hardener-today";
import { matteBlend } from "#core/models/mix/matte-blend";
import { type MixInput, mixPlan } from "#core/models/mix/mix-plan";
import { sheetContradictions } from "#core/models/product/sheet";
import { partSheet, productSheet } from "#core/models/product/sheet-schema";

const C = 273.15;
const sheet = productSheet.parse({
  name: "Clear T",
  kind: "clear",
  ratio: "2:1",
  reducerMax: 0.1,
  volumeSolids: 0.48,
  speed: "medium",
  coats: 2,
  filmPerCoatMin_m: 25e-6,
  filmPerCoatMax_m: 30e-6,
  flashMin_s: 600,
  flashMax_s: 2700,
  potLife_s: 5400,
  potLifeAt: [{ temperature_K: 30 + C, life_s: 2700 }],
  sandAfter_s: 57600,
  density_kg_m3: 1000,
  voc_kg_m3: 480,
  window: { low_K: 15 + C, high_K: 30 + C },
  floor_m: null,
});
const hardener = partSheet.parse({ name: "Hardener T", kind: "hardener", density_kg_m3: 1050, voc_kg_m3: 300 });
const thinner = partSheet.parse({ name: "Reducer T", kind: "reducer", density_kg_m3: 870, voc_kg_m3: 870 });
const input: MixInput = {
  sheet,
  hardener,
  thinner,
  ratio: [2, 1],
  reducer: 0.1,
  meaning: "activated",
  areas: [{ area_m2: 1.5, bothSides: false }],
  coats: 2,
  dryFilm_m: 28e-6,
  transfer: 0.65,
  waste: 0,
  dead_m3: 0,
  temperature_K: 20 + C,
  gun: { fan_m: 0.25, overlap: 0.5, handSpeed_m_s: 0.34 },
};
const plan = (change: Partial<MixInput> = {}) => mixPlan({ ...input, ...change });

test("parts add up to the mix, weights to the scale's last target, marks to a full cup", () => {
  const p = plan();
  expect(p.parts.reduce((a, x) => a + x.volume_m3, 0)).toBeCloseTo(p.amount.ready_m3, 15);
  expect(p.parts.at(-1)!.mark).toBeCloseTo(1, 12);
  expect(p.targets!.at(-1)!.upTo_kg).toBeCloseTo(
    p.targets!.reduce((a, t) => a + t.mass_kg, 0),
    15,
  );
  expect(p.parts.map((x) => x.name)).toEqual(["Clear T", "Hardener T", "Reducer T"]);
});
test("a density that is not on the shelf stops weighing, and is named; nothing is guessed", () => {
  const p = plan({ thinner: null });
  expect(p.targets).toBeNull();
  expect(p.missingDensity).toEqual(["reducer"]);
  expect(plan({ thinner: null, reducer: 0 }).missingDensity).toEqual([]);
});
test("VOC of the mix by hand: litres of each part times its own grams", () => {
  const p = plan();
  const [clear, hard, thin] = p.parts.map((x) => x.share) as [number, number, number];
  expect(p.voc!.actual_kg_m3).toBeCloseTo(clear * 480 + hard * 300 + thin * 870, 9);
  expect(p.voc!.regulatory_kg_m3).toBeCloseTo(p.voc!.actual_kg_m3, 9);
  expect(plan({ hardener: { ...hardener, voc_kg_m3: null } }).voc).toBeNull();
});
test("water counts out of the regulatory form only", () => {
  const wet = plan({ sheet: { ...sheet, waterShare: 0.2 } });
  expect(wet.voc!.regulatory_kg_m3).toBeGreaterThan(wet.voc!.actual_kg_m3);
});
test("more reducer than the sheet is said; schools stand beside it with what they cost", () => {
  expect(plan().reduction.beyondSheet).toBe(false);
  expect(plan({ reducer: 0.15 }).reduction.beyondSheet).toBe(true);
  const schools = Object.fromEntries(plan().schools.map((s) => [s.id, s]));
  expect(schools["little-over"]!.cost.dryPerCoat_m).toBeLessThan(schools.sheet!.cost.dryPerCoat_m);
  expect(schools.under!.cost.dryPerCoat_m).toBeGreaterThan(schools.sheet!.cost.dryPerCoat_m);
});
test("ten per cent of all is more reducer than ten per cent on top", () => {
  expect(plan({ meaning: "finished" }).reducerOnActivated).toBeCloseTo(1 / 9, 12);
  expect(plan({ meaning: "finished" }).amount.ready_m3).toBeGreaterThan(plan().amount.ready_m3);
});
test("heat halves the pot life by the sheet, and a long job is split into pots", () => {
  expect(plan({ temperature_K: 30 + C }).potLife).toEqual({ time_s: 2700, how: "sheet" });
  expect(plan().pots).toHaveLength(1);
  const many = plan({ coats: 4, temperature_K: 30 + C, sheet: { ...sheet, flashMin_s: 1200 } });
  expect(many.pots!.length).toBeGreaterThan(1);
  expect(many.pots!.flatMap((p) => p.coats)).toEqual([1, 2, 3, 4]);
  expect(many.pots!.reduce((a, p) => a + p.volume_m3, 0)).toBeCloseTo(
    many.coats.reduce((a, c) => a + c.volume_m3, 0),
    15,
  );
});
test("a coat that outlives its pot is told in words, not thrown", () => {
  const p = plan({ areas: [{ area_m2: 80, bothSides: false }], temperature_K: 30 + C });
  expect(p.pots).toBeNull();
  expect(p.potFault).toContain("One coat takes longer than a pot lives");
});
test("outside the temperature window it names whose window that is; the hardener's own goes first", () => {
  expect(plan().outsideWindow).toBeNull();
  expect(plan({ temperature_K: 12 + C }).outsideWindow).toBe("Clear T is not meant for this temperature");
  const slow = { ...hardener, name: "Slow T", window: { low_K: 24 + C, high_K: 35 + C } };
  expect(plan({ hardener: slow }).outsideWindow).toBe("Slow T is not meant for this temperature");
});
test("a sheet that contradicts itself is told field by field", () => {
  const wrong = {
    ...sheet,
    ratio: "two",
    filmPerCoatMax_m: 10e-6,
    flashMax_s: 60,
    reducerMin: 0.3,
    window: { low_K: 300, high_K: 290 },
    exemptShare: 0.2,
  };
  expect(
    sheetContradictions(wrong)
      .map((c) => c.field)
      .sort(),
  ).toEqual(["exemptDensity_kg_m3", "filmPerCoatMax_m", "flashMax_s", "ratio", "reducerMax", "window"]);
  expect(sheetContradictions(sheet)).toEqual([]);
  expect(sheetContradictions({ ...sheet, potLifeAt: [{ temperature_K: 20 + C, life_s: 1 }] }).map((c) => c.field)).toEqual(["potLifeAt"]);
});

describe("a matte clear is blended for its gloss", () => {
  const matte = { ...sheet, name: "Matte T", density_kg_m3: 1010, blendWith: "Gloss T" };
  const gloss = { ...sheet, name: "Gloss T", density_kg_m3: 990 };
  const agent = partSheet.parse({ name: "Agent T", kind: "matting agent", density_kg_m3: 1200 });
  const blend = (share: number, other: typeof gloss | typeof agent = gloss) =>
    matteBlend({ ...matte, blendWith: other.name }, [gloss, agent], share);

  test("85 % by weight with a gloss clear: poured 85 to 15 by weight, the hardener's share unmoved", () => {
    const p = plan({ sheet: matte, reducer: 0, blend: blend(0.85) });
    expect(p.parts.map((x) => x.name)).toEqual(["Matte T", "Gloss T", "Hardener T"]);
    const [m, g] = p.targets!.map((t) => t.mass_kg) as [number, number];
    expect(m / (m + g)).toBeCloseTo(0.85, 12);
    expect(p.parts[2]!.share).toBeCloseTo(1 / 3, 12);
    // By hand: (.85/1010) ÷ (.85/1010 + .15/990) of the two thirds.
    expect(p.parts[0]!.share).toBeCloseTo((2 / 3) * (0.85 / 1010 / (0.85 / 1010 + 0.15 / 990)), 12);
  });
  test("with an agent the agent is the matting component", () => {
    const p = plan({ sheet: matte, reducer: 0, blend: blend(0.1, agent) });
    const [clear, own] = p.targets!.map((t) => t.mass_kg) as [number, number];
    expect(own / (clear + own)).toBeCloseTo(0.1, 12);
  });
  test("all of one is poured alone; what is not on the shelf blends nothing; a share beyond sense is refused", () => {
    expect(plan({ sheet: matte, reducer: 0, blend: blend(1) }).parts.map((x) => x.name)).toEqual(["Matte T", "Hardener T"]);
    expect(matteBlend({ ...matte, blendWith: "gone" }, [gloss], 0.5)).toBeNull();
    expect(() => blend(1.1)).toThrow(RangeError);
  });
});

describe("the hardener for today", () => {
  const gun = { ...USUAL_GUN, handSpeed_m_s: 0.3 };
  const list = [
    partSheet.parse({ name: "fast", kind: "hardener", speed: "fast", window: { low_K: 10 + C, high_K: 18 + C } }),
    partSheet.parse({ name: "medium", kind: "hardener", speed: "medium", window: { low_K: 18 + C, high_K: 28 + C } }),
    partSheet.parse({ name: "slow", kind: "hardener", speed: "slow", window: { low_K: 25 + C, high_K: 35 + C } }),
  ];
  const today = (air_C: number, hardeners = list) =>
    hardenersToday(
      hardeners,
      {
        conditions: flowConditions(sheet, { air_K: air_C + C, material_K: null, reducer: 0, tilt_rad: Math.PI / 2 }),
        coats: [
          { gun, flash_s: 600 },
          { gun, flash_s: 600 },
        ],
      },
      4.2,
    );
  test("is one whose window holds today, by the day's temperature", () => {
    for (const [air_C, name] of [
      [15, "fast"],
      [22, "medium"],
      [31, "slow"],
    ] as const)
      expect(today(air_C).find((h) => h.best)?.name).toBe(name);
  });
  test("none is named where none is meant for the day", () => {
    expect(today(40).some((h) => h.best)).toBe(false);
    expect(today(40).every((h) => h.inWindow === false)).toBe(true);
  });
});
