import { type TestLedger, askedOf } from "./testing/asked-of";
import fc from "fast-check";
import { panelShape } from "#core/kernel/geometry/shapes";
import { GUN_BOUNDS } from "#core/models/bounds";
import { FLOW, SUBSTRATE_TEXTURE } from "#core/models/flow/constants";
import { simulateCoats } from "#core/models/flow/simulate-coats";
import { USUAL_GUN } from "#core/models/spray/usual-gun";
import { SPRAY } from "#core/models/spray/constants";
import { HOUSE_WAYS, houseWay } from "#core/models/ways/house-ways";
import { predictCoat } from "#core/panel/predict-coat";
import { clearAfter } from "./clear-after";
import { coatsAhead } from "./coats-ahead";
import { coatsToMix, facesToCome, litresAgain, litresToCome, withWaste } from "./litres";
import { eachCoat, facesMixed, filmOfCoat, filmsMixed, mixOver } from "./mix-over";
import { nextCoat } from "./next-coat";
import { planAhead } from "./plan-ahead";
import { potLifeNow } from "./pot-life";
import { flowConditions, sprayedNow } from "./setting";
import { windowAhead } from "./window-ahead";

const UPRIGHT = Math.PI / 2;
const door = panelShape("door", { width_m: 1.1, height_m: 0.75 });

const mixed = (l: TestLedger, reducer: number, speed: "slow" | "medium" | "fast" | null = null) =>
  l.add("mix", { volume_m3: 4e-4, reducer, potLife_s: 5400, speed });

test("reducer and hardener are those of the mix: a slow, reduced pot runs the sooner, for every page that asks", () => {
  const plain = coatsAhead(askedOf())!;
  const a = askedOf((l) => mixed(l, 0.2, "slow"));
  const slow = coatsAhead(a)!;
  expect(slow[0]).toMatchObject({ reducer: 0.2, conditions: { speed: "slow", reducer: 0.2, tilt_rad: UPRIGHT } });
  expect(slow[0]!.runChance).toBeGreaterThan(1.5 * plain[0]!.runChance);
  // The window is about the second coat before anything is on: the very one of the plan.
  const w = windowAhead(a);
  expect(w).toMatchObject({ number: 2, laid: 0, conditions: slow[1]!.conditions });
  expect(simulateCoats(w.conditions, w.coats).sagLocal_m).toBeCloseTo(slow[1]!.sagLocal_m, 12);
});

test("the coat that is foretold is the coat that is predicted once it was logged as it was offered", () => {
  const way = houseWay("tack-full");
  const before = askedOf((l) => mixed(l, 0.1, "fast"), { way, coats: 3 });
  const [row] = coatsAhead(before)!;
  const offered = nextCoat(before);
  const after = askedOf(
    (l) => {
      mixed(l, 0.1, "fast");
      l.add("coat", { number: 1, role: offered.role, reducer: offered.reducer, wetReading_m: null, settings: offered.settings });
    },
    { way, coats: 3 },
  );
  const { predicted, sprayed } = after.facts.coats[0]!;
  expect(sprayed).toEqual(sprayedNow(before.facts, before.sheet));
  expect(predicted.dry_m).toBeCloseTo(row!.dry_m, 12);
  expect(predicted.wet_m).toBeCloseTo(row!.wet_m, 12);
  expect(predictCoat(offered, before.sheet, sprayed).u_dry_m).toBeCloseTo(row!.u_dry_m, 12);
  // And the second is foretold on top of it, with the wait that its window asks for.
  expect(coatsAhead(after)![0]).toMatchObject({ number: 2, laid: 1 });
});

test("a part that was turned is sprayed as it lies; the back comes before the front; sanded flat, the next lies on a flat surface", () => {
  const turned = askedOf((l) => l.add("turn", { how: "laid", side: "front", tilt_rad: 0 }));
  expect(coatsAhead(turned)![0]!.conditions.tilt_rad).toBe(0);
  expect(coatsAhead(turned)![0]!.runChance).toBeLessThan(coatsAhead(askedOf())![0]!.runChance);
  expect(facesToCome(askedOf(undefined, { sides: 2 }))).toEqual(["back", "front"]);
  const sanded = askedOf(
    (l) => {
      l.coat(1);
      l.add("flatten", { grit: 800, by: "machine", removal_m: 8e-6, u_m: 3e-6, from: "forecast" });
    },
    { coats: 2 },
  );
  expect(coatsAhead(sanded)![0]).toMatchObject({ laid: 0, conditions: { below: SUBSTRATE_TEXTURE.sanded } });
});

test("all on, none is to come; beyond the model nothing is foretold, and its litres are known all the same", () => {
  const on = askedOf((l) => [l.coat(1), l.coat(2)]);
  expect(coatsAhead(on)).toEqual([]);
  expect(litresToCome(on)).toEqual({ sprayed_m3: 0, toMix_m3: 0 });
  // One more is what the window is about then.
  expect(windowAhead(on)).toMatchObject({ number: 3, laid: 2 });
  // As near as a gun may be logged, and the way comes nearer yet.
  const far = askedOf((l) => l.coat(1, { distance_m: GUN_BOUNDS.distance_m.min }), { coats: 3, way: houseWay("many-thin") });
  expect(coatsAhead(far)).toBeNull();
  expect(coatsToMix(far, "front")).toHaveLength(2);
  expect(planAhead(far, null).clear).toBeNull();
  expect(windowAhead(far)).toMatchObject({ number: 2, laid: 1 });
  // Whatever gun may be logged, its litres can be told by every way.
  for (const fan_m of [GUN_BOUNDS.fan_m.min, GUN_BOUNDS.fan_m.max])
    for (const handSpeed_m_s of [GUN_BOUNDS.handSpeed_m_s.min, GUN_BOUNDS.handSpeed_m_s.max])
      for (const { id } of HOUSE_WAYS)
        expect(litresToCome(askedOf((l) => l.coat(1, { fan_m, handSpeed_m_s }), { coats: 3, way: houseWay(id) })).toMix_m3).toBeGreaterThan(
          0,
        );
});

test("litres: the coats to come on the faces that want them, waste and what stays in cup and gun once", () => {
  const one = litresToCome(askedOf());
  expect(one.toMix_m3).toBeCloseTo(1.05 * one.sprayed_m3 + 30e-6, 15);
  const two = askedOf(undefined, { sides: 2 });
  expect(litresToCome(two).sprayed_m3).toBeCloseTo(2 * one.sprayed_m3, 12);
  const back = askedOf(
    (l) =>
      [1, 2].map((number) =>
        l.add("coat", {
          number,
          role: "full wet",
          reducer: 0,
          wetReading_m: null,
          settings: two.facts.gunSet?.body.settings ?? nextCoat(two).settings,
          side: "back",
        }),
      ),
    { sides: 2 },
  );
  expect(facesToCome(back)).toEqual(["front"]);
  expect(litresToCome(back).sprayed_m3).toBeCloseTo(one.sprayed_m3, 12);
  expect(litresAgain(back).sprayed_m3).toBeCloseTo(2 * one.sprayed_m3, 12);
  expect(withWaste(0).toMix_m3).toBe(0);
});

test("a mix over several faces: their last coats go on together, a further coat is as the last", () => {
  expect(eachCoat([[1, 2], [4]], 2)).toEqual([1, 6]);
  expect(eachCoat([[1, 2], [4]], 3)).toEqual([1, 6, 6]);
  expect(eachCoat([[1, 2], [4]], 1)).toEqual([1]);
  const a = askedOf();
  const coats = coatsToMix(a, "front");
  const face = { side: "front" as const, coats };
  expect(facesMixed([face], "both")).toEqual([face, face]);
  expect(facesMixed([face], undefined)).toEqual([]);
  const over = mixOver({ own: [face], others: [{ outline: door.outline }], way: a.way, gun: nextCoat(a).settings, after: 0 }, 2);
  expect(over.strokes_m3[0]).toBeCloseTo(2 * coats[0]!.volume_m3, 12);
  expect(filmOfCoat([])).toBeNull();
  expect(filmsMixed(coats, { coats: 2, dryTotal_m: 60e-6 }).reduce((x, y) => x + y)).toBeCloseTo(60e-6, 12);
});

test("doubt that is common to coats stays common: on and to come err together, what was read stands by itself", () => {
  const a = askedOf((l) => l.coat(1), { coats: 3 });
  const ahead_m = coatsAhead(a)!.map((c) => c.dry_m);
  const by = (now: Parameters<typeof clearAfter>[2]["now"]) => clearAfter(a.facts, "front", { now, ahead_m });
  const predicted = by({ ...a.facts.expectedClear!, how: "predicted" });
  expect(predicted.u_m).toBeGreaterThan(SPRAY.shopLogSd * predicted.clear_m);
  const read = by({ clear_m: 27e-6, u_m: 2e-6, how: "measured" });
  expect(read.clear_m).toBeCloseTo(27e-6 + ahead_m[0]! + ahead_m[1]!, 12);
  expect(read.u_m).toBeLessThan(predicted.u_m);
  expect(read.u_m).toBeGreaterThan(SPRAY.shopLogSd * (ahead_m[0]! + ahead_m[1]!));
});

test("a pot lives as the air has it: one figure of the sheet halves for every 10 °C above 20, and is no longer in the cold", () => {
  const at = (C: number) => potLifeNow(askedOf((l) => l.add("climate", { air_K: 273.15 + C, part_K: null, relativeHumidity: 0.5 }))) / 60;
  expect(at(20)).toBe(90);
  expect(at(12)).toBe(90);
  expect(at(30)).toBeCloseTo(45, 6);
  expect(at(35)).toBeCloseTo(90 / 2 ** 1.5, 6);
});

test("laws over random coats: a run is the likelier with more film, cold, a slower hardener, a steeper part and more reducer through the same needle", () => {
  fc.assert(
    fc.property(
      fc.record({
        handSpeed_m_s: fc.double({ min: 0.28, max: 0.45, noNaN: true }),
        C: fc.double({ min: 14, max: 26, noNaN: true }),
        reducer: fc.constantFrom(0, 0.05, 0.1),
        tilt_rad: fc.double({ min: 0.5, max: 1.2, noNaN: true }),
      }),
      ({ handSpeed_m_s, C, reducer, tilt_rad }) => {
        const gun = { ...nextCoat(askedOf()).settings, handSpeed_m_s };
        const of = (o: { hand?: number; C?: number; reducer?: number; tilt_rad?: number; speed?: "slow" | "medium" } = {}) =>
          coatsAhead(
            askedOf(
              (l) => {
                l.add("climate", { air_K: 273.15 + (o.C ?? C), part_K: null, relativeHumidity: 0.5 });
                l.add("gunSet", { name: "gun", gunId: null, settings: { ...gun, handSpeed_m_s: o.hand ?? handSpeed_m_s } });
                mixed(l, o.reducer ?? reducer, o.speed ?? "medium");
              },
              { tilt_rad: o.tilt_rad ?? tilt_rad },
            ),
          )![0]!;
        const own = of();
        expect(of({ hand: handSpeed_m_s * 0.85 }).runChance).toBeGreaterThan(own.runChance);
        expect(of({ C: C - 4 }).runChance).toBeGreaterThan(own.runChance);
        expect(of({ tilt_rad: tilt_rad + 0.3 }).runChance).toBeGreaterThan(own.runChance);
        expect(of({ speed: "slow" }).runChance).toBeGreaterThan(own.runChance);
        expect(of({ reducer: reducer + 0.15 }).runChance).toBeGreaterThan(own.runChance);
        expect(of({ hand: handSpeed_m_s * 0.85 }).dry_m).toBeGreaterThan(own.dry_m);
      },
    ),
    { numRuns: 30 },
  );
});

test("laws of thinning: through a needle that gives no more a run is never less likely with more reducer than a tenth, nor with thinner material", () => {
  const speeds = fc.constantFrom("fast" as const, "medium" as const, "slow" as const);
  const at = fc.record({
    C: fc.double({ min: 12, max: 32, noNaN: true }),
    hand: fc.double({ min: 0.24, max: 0.5, noNaN: true }),
    speed: speeds,
  });
  const sag = (o: { C: number; hand: number; speed: "fast" | "medium" | "slow" }, reducer: number, viscosity_mPa_s = 45) => {
    const gun = { ...USUAL_GUN, handSpeed_m_s: o.hand };
    const conditions = flowConditions(
      { speed: o.speed, volumeSolids: 0.48 },
      { air_K: 273.15 + o.C, material_K: null, reducer, tilt_rad: UPRIGHT },
    );
    return simulateCoats({ ...conditions, viscosity22C_Pa_s: viscosity_mPa_s / 1000 }, [{ gun, reducer, flash_s: 0 }]).sagLocal_m;
  };
  fc.assert(
    fc.property(at, fc.double({ min: 0.1, max: 0.45, noNaN: true }), (o, reducer) => {
      expect(sag(o, reducer + 0.05)).toBeGreaterThanOrEqual(sag(o, reducer) * (1 - 1e-6));
    }),
    { numRuns: 100 },
  );
  // Up to a tenth, and from thick to thin, what is lost in flight by finer drops may weigh more in the heat: what may run holds.
  fc.assert(
    fc.property(at, fc.double({ min: 8, max: 100, noNaN: true }), (o, viscosity) => {
      const [thin, thick] = [sag(o, 0, viscosity), sag(o, 0, viscosity * 1.3)];
      if (thick > 0.5 * FLOW.sagRun_m) expect(thick).toBeLessThanOrEqual(thin * (1 + 1e-6));
    }),
    { numRuns: 100 },
  );
});

test("what a way adds for a later coat is foretold whether the first pot is mixed, sprayed from, or thinned for it", () => {
  const plain = houseWay("two-full");
  const way = { ...plain, coats: [plain.coats[0]!, { ...plain.coats[1]!, reducerShift: 0.05 }] };
  const last = (fill: (l: TestLedger) => void) => coatsAhead(askedOf(fill, { way }))!.at(-1)!;
  const first = (l: TestLedger) => {
    mixed(l, 0.1);
    l.coat(1, {}, 0.1);
  };
  const before = last((l) => mixed(l, 0.1));
  expect(before.reducer).toBeCloseTo(0.15, 12);
  expect(last(first).reducer).toBeCloseTo(0.15, 12);
  const thinned = last((l) => {
    first(l);
    mixed(l, 0.15);
  });
  expect(thinned.reducer).toBeCloseTo(0.15, 12);
  expect(coatsAhead(askedOf((l) => mixed(l, 0.1), { way }))![0]!.reducer).toBeCloseTo(0.1, 12);
});
