import { startGun } from "#core/models/ways/coat-gun";
import { houseWay } from "#core/models/ways/house-ways";
import { recordEvidence } from "#core/judge/record-evidence";
import type { BodyInputOf, EntryKind } from "#core/record/bodies";
import { derivePanel } from "#core/panel/derive-panel";
import { PREFLIGHT_IDS } from "#core/models/prep/preflight-ids";
import { panelShape } from "#core/kernel/geometry/shapes";
import { TEST_GUN, TEST_SHEET, testLedger } from "#core/panel/testing/test-ledger";

const um = (x: number) => x * 1e-6;
const shape = panelShape("door", { width_m: 1.1, height_m: 0.7 });
const brief = { shape, substrate: "refinish" as const, tilt_rad: Math.PI / 2, coatsPlanned: 2 };
const sheet = { ...TEST_SHEET, filmPerCoatMax_m: um(32) };

function job() {
  const { entries, ...made } = testLedger();
  const add = <K extends EntryKind>(kind: K, body: BodyInputOf<K>, after_min = 1) => void made.add(kind, body, { after_min });
  const coat = (number: number, settings: Partial<typeof TEST_GUN> = {}, after_min = 15, reducer = 0) =>
    add("coat", { number, role: "full wet", reducer, wetReading_m: null, settings: { ...TEST_GUN, ...settings } }, after_min);
  const climate = (air_C: number, o: Partial<BodyInputOf<"climate">> = {}) =>
    add("climate", { air_K: air_C + 273.15, part_K: null, relativeHumidity: 0.5, ...o });
  const evidence = (o: Partial<Parameters<typeof recordEvidence>[0]> = {}) =>
    recordEvidence({ brief, state: derivePanel(brief, sheet, entries), sheet, finish: "asSprayed", ...o });
  return { add, coat, climate, evidence };
}

test("an empty record says nothing but how the panel stands", () => {
  expect(job().evidence()).toEqual({ upright: true });
  expect(job().evidence({ brief: { ...brief, tilt_rad: 0.1 } })).toEqual({ upright: false });
});

test("a usual job speaks against every usual fault", () => {
  const j = job();
  j.climate(22, { part_K: 294.15, material_K: 294.15 });
  j.coat(1);
  j.coat(2);
  const e = j.evidence();
  for (const id of [
    "hot",
    "cold",
    "coldMaterial",
    "damp",
    "far",
    "close",
    "slow",
    "quick",
    "lowPressure",
    "overReduced",
    "flashShort",
    "flashLong",
    "settingsRun",
    "settingsPeel",
  ] as const)
    expect({ id, so: e[id] }).toEqual({ id, so: false });
  expect(e.untacked).toBeUndefined(); // nobody ticked anything: not known, not missed
});

test.each([
  [
    "hot",
    () => {
      const j = job();
      j.climate(31);
      return j;
    },
  ],
  [
    "cold",
    () => {
      const j = job();
      j.climate(20, { part_K: 285 });
      return j;
    },
  ],
  [
    "coldMaterial",
    () => {
      const j = job();
      j.climate(22, { material_K: 283 });
      return j;
    },
  ],
  [
    "damp",
    () => {
      const j = job();
      j.climate(20, { relativeHumidity: 0.9 });
      return j;
    },
  ],
  [
    "far",
    () => {
      const j = job();
      j.coat(1, { distance_m: 0.25 });
      return j;
    },
  ],
  [
    "close",
    () => {
      const j = job();
      j.coat(1, { distance_m: 0.11 });
      return j;
    },
  ],
  [
    "slow",
    () => {
      const j = job();
      j.coat(1, { handSpeed_m_s: 0.2 });
      return j;
    },
  ],
  [
    "quick",
    () => {
      const j = job();
      j.coat(1, { handSpeed_m_s: 0.6 });
      return j;
    },
  ],
  [
    "lowPressure",
    () => {
      const j = job();
      j.coat(1, { pressure_Pa: 1e5 });
      return j;
    },
  ],
  [
    "thickCoat",
    () => {
      const j = job();
      j.coat(1, { handSpeed_m_s: 0.17 });
      return j;
    },
  ],
  [
    "thinCoat",
    () => {
      const j = job();
      j.coat(1, { handSpeed_m_s: 0.7 });
      return j;
    },
  ],
  [
    "overReduced",
    () => {
      const j = job();
      j.coat(1, {}, 15, 0.4);
      return j;
    },
  ],
  [
    "flashShort",
    () => {
      const j = job();
      j.coat(1);
      j.coat(2, {}, 3);
      return j;
    },
  ],
  [
    "flashLong",
    () => {
      const j = job();
      j.coat(1);
      j.coat(2, {}, 90);
      return j;
    },
  ],
  [
    "settingsRun",
    () => {
      const j = job();
      j.coat(1, { distance_m: 0.11, handSpeed_m_s: 0.2 });
      j.coat(2, { distance_m: 0.11, handSpeed_m_s: 0.2 }, 2);
      return j;
    },
  ],
  [
    "settingsPeel",
    () => {
      const j = job();
      j.climate(33);
      j.coat(1, { distance_m: 0.28 });
      return j;
    },
  ],
] as const)("%s is read off the record where it is so", (id, build) => {
  expect(build().evidence()[id]).toBe(true);
});

test("what was ticked before the gun was filled, and what was left out", () => {
  const j = job();
  j.add("preflight", { ticks: PREFLIGHT_IDS.filter((t) => t !== "tack" && t !== "light") });
  const e = j.evidence();
  expect([e.untacked, e.poorLight, e.unclean, e.looseClothing, e.dustyBooth, e.ungrounded]).toEqual([
    true,
    true,
    false,
    false,
    false,
    false,
  ]);
});

test("what lies below: grit, cleaning, and the age of the base at the first coat", () => {
  const under = (step: "sand" | "clean" | "base", grit: number | null = null) => ({
    step,
    grit,
    coats: null,
    film_m: null,
    pressure_Pa: null,
    reach_m: null,
    note: "",
  });
  const j = job();
  j.add("under", under("sand", 320));
  j.add("under", under("base"));
  j.coat(1, {}, 30 * 60);
  const e = j.evidence();
  expect([e.coarseBelow, e.unclean, e.baseOld]).toEqual([true, true, true]);
  const good = job();
  good.add("under", under("sand", 800));
  good.add("under", under("clean"));
  good.add("under", under("base"));
  good.coat(1, {}, 60);
  const g = good.evidence();
  expect([g.coarseBelow, g.unclean, g.baseOld]).toEqual([false, false, false]);
});

test("heat too soon by the part's own log; matte forced dry; the pour against what was asked; the hardener's age", () => {
  const baked = (heatAt_s: number) => {
    const j = job();
    j.coat(1);
    j.add("oven", {
      probe: "probe",
      samples: [0, heatAt_s, heatAt_s + 60, heatAt_s + 1800].map((at_s, i) => ({ at_s, part_K: i < 2 ? 295 : 333 })),
    });
    return j;
  };
  expect(baked(120).evidence().heatSoon).toBe(true);
  expect(baked(1500).evidence().heatSoon).toBe(false);
  expect(baked(1500).evidence({ finish: "matte" }).forcedMatte).toBe(true);
  // Fifteen minutes are what the course asks of a matte part: they were held against it.
  expect(baked(840).evidence({ finish: "matte" }).heatSoon).toBe(false);
  expect(baked(840).evidence().heatSoon).toBe(true);
  const part = (name: string, poured: number) => ({ name, volume_m3: 1e-4, mass_kg: 0.1, poured_kg: poured });
  const mixed = (poured: number) => {
    const j = job();
    j.add("mix", { volume_m3: 3e-4, reducer: 0, potLife_s: 5400, parts: [part("clear", 0.1), part("hardener", poured)] });
    return j.evidence().wrongRatio;
  };
  expect([mixed(0.101), mixed(0.08)]).toEqual([false, true]);
  expect([
    job().evidence({ hardenerOver: true }).oldHardener,
    job().evidence({ hardenerOver: false }).oldHardener,
    job().evidence().oldHardener,
  ]).toEqual([true, false, undefined]);
});

test("a pressure told at the hose says too little of the gun's to accuse it", () => {
  const at = (pressureAt: "gun" | "hose") => {
    const j = job();
    j.coat(1, { pressure_Pa: 1.1e5, pressureAt });
    return j.evidence().lowPressure;
  };
  expect([at("gun"), at("hose")]).toEqual([true, false]);
});

describe("what a way does on purpose is no finding", () => {
  const near = startGun(houseWay("near-fast"));
  const asNear = { distance_m: near.distance_m, pressure_Pa: near.pressure_Pa, handSpeed_m_s: near.handSpeed_m_s };
  test("near, low and fast is a school of the trade: none of the three is named, in its own way or in another", () => {
    const j = job();
    j.climate(22);
    j.coat(1, asNear);
    j.coat(2, asNear);
    const { close, lowPressure, quick } = j.evidence({ way: houseWay("near-fast") });
    expect({ close, lowPressure, quick }).toEqual({ close: false, lowPressure: false, quick: false });
    const other = j.evidence({ way: houseWay("two-full") });
    expect([other.close, other.lowPressure, other.quick]).toEqual([false, false, false]);
  });
  test("18 psi, 115 mm with a fast hand, 240 mm with more fluid: as good as the film they lay, whatever the way", () => {
    const named = (settings: Partial<typeof TEST_GUN>) => {
      const j = job();
      j.coat(1, settings);
      j.coat(2, settings);
      const { far, close, quick, lowPressure, thinCoat, thickCoat } = j.evidence({ way: houseWay("two-full") });
      return Object.entries({ far, close, quick, lowPressure, thinCoat, thickCoat }).flatMap(([id, so]) => (so ? [id] : []));
    };
    const { handSpeed_m_s, fluidRate_m3_s } = TEST_GUN;
    expect(named({ pressure_Pa: 18 * 6895 })).toEqual([]);
    expect(named({ distance_m: 0.115, handSpeed_m_s: 1.4 * handSpeed_m_s })).toEqual([]);
    expect(named({ distance_m: 0.24, fluidRate_m3_s: 1.4 * fluidRate_m3_s })).toEqual([]);
    // The same held so that the film comes out of the sheet's range, and what is beyond every school.
    expect(named({ distance_m: 0.115, handSpeed_m_s: 0.7 * handSpeed_m_s })).toEqual(["close", "thickCoat"]);
    expect(named({ distance_m: 0.24 })).toEqual(["far", "thinCoat"]);
    expect(named({ distance_m: 0.24, fluidRate_m3_s: 1.4 * fluidRate_m3_s, pressure_Pa: 18 * 6895 })).toEqual(["lowPressure"]);
    expect(named({ pressure_Pa: 15 * 6895 })).toContain("lowPressure");
    expect(named({ distance_m: 0.09, handSpeed_m_s: 1.7 * handSpeed_m_s })).toContain("close");
  });
  test("nearer than even that way holds it is named all the same", () => {
    const j = job();
    j.coat(1, { ...asNear, distance_m: 0.08 });
    expect(j.evidence({ way: houseWay("near-fast") }).close).toBe(true);
  });
  test("a thin tack coat, a long flash by choice, a night before sanding, more reducer in a flow coat: none is a fault of its way", () => {
    const tack = job();
    tack.add("coat", { number: 1, role: "tack", reducer: 0, wetReading_m: null, settings: { ...TEST_GUN, handSpeed_m_s: 0.34 * 2.4 } });
    expect(tack.evidence({ way: houseWay("tack-full") })).toMatchObject({ thinCoat: false, quick: false });
    expect(tack.evidence({ way: houseWay("two-full") })).toMatchObject({ thinCoat: true, quick: true });
    const long = job();
    long.coat(1);
    long.coat(2, {}, 3.2 * 15);
    expect(
      long.evidence({ way: { ...houseWay("long-flash"), coats: houseWay("long-flash").coats.map((c) => ({ ...c, flashFactor: 6 })) } })
        .flashLong,
    ).toBe(false);
    const flow = job();
    for (const n of [1, 2]) flow.coat(n);
    flow.coat(3);
    flow.add("coat", { number: 4, role: "flow", reducer: 0.05, wetReading_m: null, settings: TEST_GUN }, 20 * 60);
    expect(flow.evidence({ way: houseWay("flat-reclear") })).toMatchObject({ overReduced: false, flashLong: false });
    expect(flow.evidence({ way: houseWay("two-full") })).toMatchObject({ overReduced: true, flashLong: true });
  });
  test("a scuff answers a colour older than a day", () => {
    const old = (scuffed: boolean) => {
      const j = job();
      j.add("under", { step: "base", grit: null, coats: 3, film_m: null, pressure_Pa: null, reach_m: null, note: "" });
      if (scuffed) for (const step of [0, 1]) j.add("mendStep", { card: "oldColour", step }, 13 * 60);
      j.coat(1, {}, scuffed ? 30 : 26 * 60);
      return j.evidence().baseOld;
    };
    expect([old(false), old(true)]).toEqual([true, false]);
  });
});
