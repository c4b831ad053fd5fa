import { type TestLedger, askedOf } from "../coat/testing/asked-of";
import fc from "fast-check";
import { panelShape } from "../kernel/geometry/shapes";
import { LAYER_KEYS, type LayerKey } from "../models/prep/layer-names";
import { LAYERS } from "../models/prep/layers";
import { asLayer, nextLayer } from "../coat/as-layer";
import { coatsAhead } from "../coat/coats-ahead";
import { layerWait } from "../coat/layer-wait";
import { layersAhead } from "../coat/layers-ahead";
import { nextCoat } from "../coat/next-coat";
import { TEST_GUN, TEST_SHEET } from "../panel/testing/test-ledger";
import { derivePanel } from "../panel/derive-panel";
import { clocksOf } from "./clocks";
import { type CourseInput, courseOf } from "./course";
import { clearFrom_ms } from "./layer-steps";
import { standingOf } from "./standing";
import { STEP_KINDS, nextAction } from "./steps";

const door = panelShape("door", { width_m: 1.1, height_m: 0.7 });

const asked = (fill: (l: TestLedger) => void, o: Parameters<typeof askedOf>[1] = {}): CourseInput => ({
  ...askedOf(fill, o),
  finish: "match",
});
const plan = (l: TestLedger, layers: Partial<Record<LayerKey, number>>) =>
  l.add("layerPlan", {
    layers: LAYER_KEYS.flatMap((layer) => (layers[layer] ? [{ layer, coats: layers[layer], sheet: null }] : [])),
  });

/** Some plan below the clear, and coats in some order, by what is next or not, told or as usual. */
const lives = fc.record({
  layers: fc.dictionary(fc.constantFrom(...LAYER_KEYS), fc.integer({ min: 1, max: 3 }), { minKeys: 1, maxKeys: 4 }),
  acts: fc.array(
    fc.record({
      what: fc.constantFrom("next", "next", "next", "other", "air", "turn"),
      layer: fc.constantFrom(...LAYER_KEYS),
      side: fc.constantFrom("front" as const, "back" as const),
      told: fc.boolean(),
      gap_min: fc.integer({ min: 1, max: 90 }),
      air_C: fc.integer({ min: 11, max: 31 }),
      humidity: fc.integer({ min: 20, max: 98 }),
    }),
    { maxLength: 7 },
  ),
  sides: fc.constantFrom<1 | 2>(1, 2),
  later_min: fc.integer({ min: 1, max: 200 }),
});
type Life = typeof lives extends fc.Arbitrary<infer T> ? T : never;

function lived({ layers, acts, sides, later_min }: Life, more: (l: TestLedger) => void = () => undefined): CourseInput {
  return asked(
    (l) => {
      plan(l, layers);
      for (const { what, layer: other, side: face, told, gap_min, air_C, humidity } of acts) {
        const after = { after_min: gap_min };
        if (what === "air") l.add("climate", { air_K: 273.15 + air_C, part_K: null, relativeHumidity: humidity / 100 }, after);
        else if (what === "turn") l.add("turn", { how: "upright", side: face, tilt_rad: 1 }, after);
        else {
          const facts = derivePanel({ shape: door, substrate: "refinish", tilt_rad: 1, coatsPlanned: 2, sides }, TEST_SHEET, l.entries);
          const next = nextLayer(facts, { sides });
          const layer = what === "next" && next ? next.layer : other;
          const side = sides === 1 ? "front" : what === "next" && next ? (next.back.length < next.coats ? "back" : "front") : face;
          l.add("colourCoat", { coat: layer, side, ...(told ? { settings: TEST_GUN, reducer: 0.1 } : {}) }, after);
        }
      }
      more(l);
    },
    { sides, later_min },
  );
}

test("a layer with the clear's own sheet, gun and coats is answered for as the clear is", () => {
  const start = { gun: { ...TEST_GUN, turns: 2 }, reducer: 0 };
  const below = asked((l) => l.add("layerPlan", { layers: [{ layer: "base", coats: 2, sheet: TEST_SHEET }] }));
  const as = { ...asLayer(below, below.facts.below[0]!), start };
  const clear = { ...asked(() => undefined), start };
  const figures = (rows: ReturnType<typeof coatsAhead>) =>
    rows!.map(({ dry_m, wet_m, runChance, volume_m3, time_s, wait }) => ({ dry_m, wet_m, runChance, volume_m3, time_s, wait }));
  expect(figures(coatsAhead(as))).toEqual(figures(coatsAhead(clear)));
});

test("the course of a sealer and two coats of base: each coat, each wait, then the clear; what is on is done", () => {
  const none = asked((l) => plan(l, { seal: 1, base: 2 }));
  const ids = (input: CourseInput) =>
    courseOf(input)
      .filter((s) => s.layer !== null)
      .map((s) => `${s.id}: ${s.state}`);
  expect(ids(none)).toEqual([
    "seal front 1: now",
    "seal over: next",
    "base front 1: later",
    "base front 1 flash: later",
    "base front 2: later",
    "base over: later",
  ]);
  const sealed = asked((l) => [plan(l, { seal: 1, base: 2 }), l.add("colourCoat", { coat: "seal" })], { later_min: 5 });
  expect(ids(sealed).slice(0, 3)).toEqual(["seal front 1: done", "seal over: now", "base front 1: next"]);
  expect(standingOf(sealed).action).toMatchObject({ kind: "colour", layer: "base", number: 1, of: 2, from_ms: layerWait(sealed)!.next_ms });
  const on = asked((l) => [plan(l, { base: 1 }), l.add("colourCoat", { coat: "base" })], { later_min: 5 });
  expect(standingOf(on).action).toMatchObject({ kind: "readBefore" });
  expect(clocksOf(on)[0]).toMatchObject({ then: "coat", due_ms: layerWait(on)!.over_ms, late_ms: layerWait(on)!.scuff_ms });
  // The clear went on without it: it is not to come any more.
  const clear = asked((l) => [plan(l, { seal: 1, base: 2 }), l.coat(1)]);
  expect(
    new Set(
      courseOf(clear)
        .filter((s) => s.layer !== null)
        .map((s) => s.state),
    ),
  ).toEqual(new Set(["missed"]));
  expect(clearFrom_ms(clear)).toBeNull();
});

test("whatever was planned and logged below: steps stand in order, one is now, header, clock and wait say the same", () => {
  fc.assert(
    fc.property(lives, (life) => {
      const input = lived(life);
      const steps = courseOf(input);
      expect(new Set(steps.map((s) => s.id)).size).toBe(steps.length);
      expect(steps.filter((s) => s.state === "now")).toHaveLength(1);
      const ahead = steps.filter((s) => !s.optional && (s.state === "now" || s.state === "next" || s.state === "later"));
      if (STEP_KINDS[ahead[0]!.kind] === "wait") expect(ahead[0]!.from_ms).toBeGreaterThan(input.now_ms);
      const action = nextAction(steps)!;
      const { action: listed } = standingOf(input);
      expect(listed).toMatchObject({
        kind: action.kind,
        layer: action.layer,
        number: action.number,
        side: action.side,
        from_ms: action.from_ms,
      });
      const next = nextLayer(input.facts, input.brief);
      const first = steps.find((s) => s.kind === "colour" && s.state !== "done")!;
      expect(first?.layer ?? null).toBe(next?.layer ?? null);
      if (!next) return;
      const coat = nextCoat(asLayer(input, next));
      expect([first.number, first.side]).toEqual([coat.number, coat.side]);
      const wait = layerWait(input);
      if (wait && action.kind === "colour") {
        expect(action.from_ms).toBe(wait.next_ms);
        expect(clocksOf(input)[0]).toMatchObject({ kind: "flash", then: "colour", due_ms: wait.next_ms });
      }
      expect(clearFrom_ms(input)).toBeGreaterThanOrEqual(input.now_ms);
    }),
    { numRuns: 60 },
  );
});

test("films below add up to their coats, told or usual; taking a coat out and putting it back leaves everything as it was", () => {
  fc.assert(
    fc.property(lives, (life) => {
      const input = lived(life);
      const { below, addedUnder, colourCoats } = input.facts;
      const laid = below.flatMap((l) => l.front).reduce((a, c) => a + c.predicted.dry_m, 0);
      expect(addedUnder.reduce((a, l) => a + l.film_m, 0)).toBeCloseTo(laid, 12);
      for (const l of below)
        for (const c of [...l.front, ...l.back])
          if (!c.told)
            expect(c.predicted.dry_m).toBeCloseTo(
              (LAYERS[l.layer].sheet.filmPerCoatMin_m + LAYERS[l.layer].sheet.filmPerCoatMax_m) / 2,
              12,
            );
      const last = colourCoats.at(-1);
      if (!last) return;
      const strike = (whole: boolean) => (l: TestLedger) => {
        const id = l.add("strike", { reason: "", whole }, { supersedes: last.id });
        l.add("strike", { reason: "" }, { supersedes: id });
      };
      const again = lived(life, strike(false));
      const figures = (i: CourseInput) =>
        layersAhead(i).map((l) => [l.layer, l.state.front.length, l.state.back.length, l.litres, l.coats?.map((c) => c.dry_m)]);
      expect(figures({ ...again, now_ms: input.now_ms })).toEqual(figures(input));
      expect(courseOf({ ...again, now_ms: input.now_ms }).map((s) => s.state)).toEqual(courseOf(input).map((s) => s.state));
    }),
    { numRuns: 40 },
  );
});

test("damper or colder is never sooner; a longer wait by the sheet is never shorter", () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...LAYER_KEYS),
      fc.integer({ min: 11, max: 30 }),
      fc.integer({ min: 20, max: 90 }),
      fc.constantFrom("water" as const, "solvent" as const, null),
      (layer, air_C, humidity, carrier) => {
        const of = (C: number, rh: number) =>
          layerWait(
            asked((l) => {
              l.add("layerPlan", { layers: [{ layer, coats: 2, sheet: { ...LAYERS[layer].sheet, carrier } }] });
              l.add("climate", { air_K: 273.15 + C, part_K: null, relativeHumidity: rh / 100 });
              l.add("colourCoat", { coat: layer, sheet: { ...LAYERS[layer].sheet, carrier } });
            }),
          )!;
        const own = of(air_C, humidity);
        expect(own.over_ms).toBeGreaterThanOrEqual(own.coat.entry.at_ms);
        for (const worse of [of(air_C - 3, humidity), of(air_C, Math.min(99, humidity + 9))]) {
          expect(worse.over_ms).toBeGreaterThanOrEqual(own.over_ms - 1);
          // Where the flow model lengthens a wait its search ends within 5 s.
          expect(worse.next_ms).toBeGreaterThanOrEqual(own.next_ms - 6000);
        }
      },
    ),
    { numRuns: 60 },
  );
});
