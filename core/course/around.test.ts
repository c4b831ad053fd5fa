import { type TestLedger, askedOf } from "../coat/testing/asked-of";
import { LAYERS } from "../models/prep/layers";
import { TEST_SHEET } from "../panel/testing/test-ledger";
import { houseWay } from "../models/ways/house-ways";
import { courseOf } from "./course";

/** What is told around the steps at hand. */
const around = (fill: (l: TestLedger) => void, o: { later_min?: number; sheet?: typeof TEST_SHEET } = {}) =>
  courseOf({ ...askedOf(fill, { substrate: "plastic", ...o }), finish: "match" }).flatMap((s) => s.around);
const what = (list: ReturnType<typeof around>) => list.map((a) => a.what);
const base = { ...LAYERS.base.sheet, name: "Base T", carrier: "water" as const };

test("a part that arrives is looked at and plugged, cleaned twice, the booth run and the pattern tried before the first coat", () => {
  expect(what(around(() => undefined))).toEqual(["look", "plug", "clean", "booth", "pattern"]);
  // What was wiped is not wiped again; the base's carrier decides the order.
  expect(what(around((l) => l.add("preflight", { ticks: ["wiped"] })))).not.toContain("clean");
  const planned = around((l) => l.add("layerPlan", { layers: [{ layer: "base", coats: 1, sheet: base }] }));
  expect(planned).toContainEqual({ what: "clean", carrier: "water" });
});

test("between products the gun is flushed and tried on paper; between two coats of one it is not, unless it stood", () => {
  const on = (later_min: number) =>
    around(
      (l) => {
        l.add("layerPlan", { layers: [{ layer: "base", coats: 1, sheet: base }] });
        l.add("colourCoat", { coat: "base", sheet: base });
      },
      { later_min },
    );
  expect(on(5)).toContainEqual({ what: "flush", of: "Base T" });
  expect(what(on(5))).toContain("pattern");
  expect(what(around((l) => l.coat(1), { later_min: 5 }))).toEqual([]);
  expect(what(around((l) => l.coat(1), { later_min: 25 }))).toEqual(["booth", "pattern"]);
});

test("a part colder than the air is let warm by its lag: three of them for 20 K, less with the time; cold material is warmed", () => {
  const climate = (part_C: number, material_C: number | null) => (l: TestLedger) =>
    l.add("climate", {
      air_K: 295.15,
      part_K: 273.15 + part_C,
      relativeHumidity: 0.4,
      material_K: material_C === null ? null : 273.15 + material_C,
    });
  const warm = (part_C: number, later_min: number) =>
    around(climate(part_C, null), { later_min }).flatMap((a) => (a.what === "warmPart" ? [a.time_s] : []))[0] ?? 0;
  // A first-order lag: ΔT falls to 1 K after τ·ln ΔT, τ 150 s.
  expect(warm(2, 0)).toBeCloseTo(150 * Math.log(20), 6);
  expect(warm(2, 3)).toBeCloseTo(150 * Math.log(20) - 180, 6);
  expect(warm(21.5, 0)).toBe(0);
  expect(warm(2, 60)).toBe(0);
  expect(what(around(climate(22, 12)))).toContain("warmMaterial");
  expect(what(around(climate(22, 20)))).not.toContain("warmMaterial");
});

test("after the last coat the booth stays on, then no sun; a run is left to harden; a settled pearl is stirred", () => {
  const done = (later_min: number, mark = false) =>
    what(
      around(
        (l) => {
          l.coat(1);
          l.coat(2);
          if (mark)
            l.add("defect", { kind: "run", at: { x_m: 0.3, y_m: 0.3 }, length_m: 0.05, width_m: 0.01, height_m: 4e-5, measured: true });
        },
        { later_min },
      ),
    );
  expect(done(60)).toContain("shade");
  expect(done(60, true)).toContain("runsLater");
  const pearl = { ...TEST_SHEET, settles_s: 600 };
  const stirred = (later_min: number) =>
    what(around((l) => l.add("mix", { volume_m3: 4e-4, reducer: 0, potLife_s: 5400 }), { later_min, sheet: pearl }));
  expect(stirred(15)).toContain("stir");
  expect(stirred(5)).not.toContain("stir");
});

test("a coat that its way sprays wetter asks for a second pot while the first lives, and no more once it is mixed", () => {
  const plain = houseWay("two-full");
  const way = { ...plain, coats: [plain.coats[0]!, { ...plain.coats[1]!, reducerShift: 0.05 }] };
  const mix = (l: TestLedger, reducer: number) => l.add("mix", { volume_m3: 4e-4, reducer, potLife_s: 3600 });
  const told = (fill: (l: TestLedger) => void, later_min: number) =>
    courseOf({ ...askedOf(fill, { way, later_min }), finish: "match" }).flatMap((s) => s.around.filter((a) => a.what === "wetter"));
  const one = (l: TestLedger) => {
    mix(l, 0.1);
    l.coat(1, {}, 0.1);
  };
  const [wetter] = told(one, 12).flatMap((a) => (a.what === "wetter" ? [a] : []));
  expect(wetter!.more).toBeCloseTo(0.05, 9);
  expect(wetter!.reducer).toBeCloseTo(0.15, 9);
  expect(told((l) => mix(l, 0.1), 1)).toEqual([]);
  expect(told(one, 90)).toEqual([]);
  expect(
    told((l) => {
      one(l);
      mix(l, 0.15);
    }, 12),
  ).toEqual([]);
});

test("a blend grows outward coat by coat on a wet bed, and where the colour ends is said with its first coat", () => {
  const planned = (coats: number, edge: "blend" | "butt" | null, on: readonly ("base" | "blend")[]) =>
    around((l) => {
      const layers = [
        { layer: "base" as const, coats: 1, sheet: base },
        { layer: "blend" as const, coats, sheet: null },
      ];
      l.add("layerPlan", { layers, edge });
      for (const coat of on) l.add("colourCoat", { coat, sheet: coat === "base" ? base : null });
    });
  const ofBlend = (list: ReturnType<typeof around>) => list.filter((a) => ["wetBed", "blendOut", "colourEdge"].includes(a.what));
  expect(ofBlend(planned(2, "butt", []))).toEqual([{ what: "colourEdge", edge: "butt" }]);
  expect(ofBlend(planned(2, null, []))).toEqual([]);
  const [bed, first] = ofBlend(planned(2, "blend", ["base"]));
  expect(bed).toEqual({ what: "wetBed" });
  const [second] = ofBlend(planned(2, "blend", ["base", "blend"]));
  const beyond = (a: typeof first) => (a?.what === "blendOut" ? a.beyond_m : 0);
  expect(beyond(second)).toBeCloseTo(2 * beyond(first), 12);
  expect(beyond(first)).toBeGreaterThan(0.08);
});
