import { panelShape } from "#core/kernel/geometry/shapes";
import { IMPERIAL, METRIC } from "#core/kernel/units/quantities";
import { type BodyInputOf, ENTRY_KINDS, type EntryKind } from "#core/record/bodies";
import { TEST_GUN, testLedger } from "#core/panel/testing/test-ledger";
import { entryName, entryWords } from "./entry-words";

const shape = panelShape("door", { width_m: 1, height_m: 0.8 });
const film = [{ thickness_m: 131e-6, entered: "131", unit: "µm" }];
const at = { x_m: 0.5, y_m: 0.4 };

/** One entry of each kind, as somebody may have made it. */
const BODIES: { [K in EntryKind]: BodyInputOf<K> } = {
  climate: { air_K: 295.15, part_K: null, relativeHumidity: 0.5 },
  mix: { volume_m3: 450e-6, reducer: 0.1, potLife_s: 5400 },
  gloss: { role: "part", angle: 60, place: "", meter: "", readings: [{ gloss_GU: 26.3, entered: "26,3" }] },
  matteCheck: { rules: [] },
  coat: { number: 2, role: "full wet", reducer: 0, wetReading_m: null, settings: TEST_GUN, side: "back", zone: "lower" },
  matteMix: { share: 0.62, target_GU: 25, low: null, high: null, from: "cards" },
  flatten: { grit: 1000, by: "machine", removal_m: 8e-6, u_m: 1.5e-6, from: "forecast" },
  turn: { how: "hung", side: "back", tilt_rad: 1.5 },
  bakeStart: { air_K: null },
  bake: { part_K: 333.15, time_s: 1800 },
  gunSet: { name: "Gun 1", gunId: null, settings: TEST_GUN },
  wetComb: { number: 1, thickness_m: 52e-6, entered: "52", unit: "µm" },
  under: { step: "seal", grit: null, coats: 1, film_m: null, pressure_Pa: null, reach_m: null, note: "" },
  layerPlan: { layers: [{ layer: "base", coats: 3, sheet: null }] },
  colourCoat: { coat: "base" },
  mendStep: { card: "dirtInBase", step: 0 },
  preflight: { ticks: [] },
  texture: { role: "target", rating: 3.5, place: "" },
  oven: {
    probe: "stand-in",
    samples: [
      { at_s: 0, part_K: 293 },
      { at_s: 60, part_K: 300 },
    ],
  },
  coatStart: { number: 3 },
  reading: { phase: "after", spot: "4", at, gauge: "typed", readings: film },
  strip: { phase: "before", gauge: "typed", readings: film },
  gaugeCheck: {
    gauge: "Gauge A",
    foil_m: 150e-6,
    uFoil_m: 1e-6,
    zero: [{ thickness_m: 0, entered: "0", unit: "µm" }],
    onFoil: film,
    correct: false,
  },
  spotPlan: { count: 6, added: [] },
  defect: { kind: "crater", at, length_m: null, width_m: null, height_m: null, measured: false, count: 3 },
  cause: { kind: "crater", answers: {}, causeId: null },
  neighbour: { name: "Wing", readings: film, rating: 3, gloss60_GU: 88 },
  reflection: { own_rad: 0.9e-3, beside_rad: 0.6e-3 },
  eye: { colour: "near", covered: true, light: "sun" },
  lookedOver: {},
  seenTo: { markId: "mark", as: "stripped" },
  outcome: { result: "ran" },
  throughClear: { note: "at the lower edge" },
  plan: {
    schoolId: "short",
    runSchool: null,
    tape_m: 0.02,
    floor_m: 35e-6,
    steps: [],
    removal_m: 11e-6,
    u_removal_m: 2e-6,
    verdict: "safe",
    cutChance: 0,
    thinChance: 0,
    inferred: false,
    fill: true,
    part: { name: "lower", outlines: [[at, { x_m: 0.6, y_m: 0.4 }, { x_m: 0.6, y_m: 0.6 }]], share: 0.5 },
  },
  step: { planId: "p", index: 0, name: "P1500 medium", removal_m: 3e-6, u_m: 1e-6, note: "" },
  stepStart: { planId: "p", index: 0 },
  handOver: { note: "keys at the desk" },
  note: { text: "customer rang" },
  strike: { reason: "mistyped" },
};
function entryOf<K extends EntryKind>(kind: K) {
  const l = testLedger();
  l.add(kind, BODIES[kind]);
  return l.entries[0]!;
}
const words = (kind: EntryKind, units = METRIC) => entryWords(entryOf(kind), shape, units);

/** Their name says it all. */
const NAME_ALONE: EntryKind[] = ["matteCheck", "bakeStart", "gunSet", "preflight", "oven", "lookedOver", "spotPlan", "stepStart", "strike"];

test("every kind of entry has a name and shows its value and place; those whose name says it all are few and known", () => {
  for (const kind of ENTRY_KINDS) {
    expect(entryName(kind).length).toBeGreaterThan(2);
    if (!NAME_ALONE.includes(kind)) expect({ kind, words: words(kind) }).not.toEqual({ kind, words: "" });
    expect(words(kind)).not.toMatch(/undefined|NaN|\[object/);
  }
});

test("a value is told in the shop's units; what was typed stays as it was typed", () => {
  expect(words("bake")).toBe("60.0 °C on the part for 30 min");
  expect(words("bake", IMPERIAL)).toContain("140.0 °F");
  expect(words("flatten")).toContain("µm by forecast");
  expect(words("flatten", IMPERIAL)).toContain("mil by forecast");
  expect(words("reading")).toContain("131 µm");
  expect(words("reading", IMPERIAL)).toContain("131 µm");
});

test("where on the panel, which face, which part: each is said where it is not the usual", () => {
  expect(words("reading")).toMatch(/^spot 4 \(.+\), after clear: 131 µm$/);
  expect(words("coat")).toMatch(/^coat 2, full wet, on the back, .*half/);
  expect(words("plan")).toBe("Short sanding, the lower half, filled with drops first");
  expect(words("defect")).toMatch(/^Crater, .+, 3$/);
  expect(words("turn")).toBe("hung, back up");
});

test("what the eye and two pictures said stands beside what was read", () => {
  expect(words("eye")).toBe("colour near, covered, in sun");
  expect(words("reflection")).toBe("0.90 against 0.60 mrad");
  expect(words("neighbour")).toBe("Wing: 131 µm: texture 3.0: 88 GU");
  expect(words("outcome")).toBe("ran");
});
