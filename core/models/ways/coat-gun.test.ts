import fc from "fast-check";
import { type GunSettings, deposit } from "../spray/deposit";
import { needleFlow } from "../spray/needle-flow";
import { USUAL_GUN } from "../spray/usual-gun";
import { coatGun, coatShare, handOf, isLying, startGun } from "./coat-gun";
import { HOUSE_WAYS, houseWay, usualCoat } from "./house-ways";
import { plannedCoat } from "./way";
import { COAT_ZONE_KEYS } from "./terms";
import { houseWayBody } from "./way-body";

const conditions = { air_K: 293.15, speed: "medium", volumeSolids: 0.5, reducer: 0 } as const;

test("what a coat changes of the gun in the hand can be taken out again, whatever it changes", () => {
  const change = fc.record({
    speedFactor: fc.double({ min: 0.4, max: 4, noNaN: true }),
    fluidFactor: fc.double({ min: 0.4, max: 2.5, noNaN: true }),
    distanceFactor: fc.double({ min: 0.5, max: 2, noNaN: true }),
    pressureShift_Pa: fc.double({ min: -1e5, max: 1e5, noNaN: true }),
    overlapShift: fc.double({ min: -0.2, max: 0.2, noNaN: true }),
    reducerShift: fc.double({ min: 0, max: 0.3, noNaN: true }),
  });
  fc.assert(
    fc.property(change, (c) => {
      const gun = { ...USUAL_GUN, fan_m: 0.2 };
      const back = handOf(coatGun(gun, c), c);
      for (const key of Object.keys(gun) as (keyof typeof gun)[]) expect(back[key]).toBeCloseTo(gun[key], 6);
    }),
  );
});

test("a coat's share of film is what the deposition model lays: hand and fluid in proportion, more reducer flows more, spots add nothing", () => {
  const coat = usualCoat();
  expect(coatShare(coat, USUAL_GUN)).toBeCloseTo(1, 12);
  expect(coatShare({ ...coat, speedFactor: 2.4 }, USUAL_GUN)).toBeCloseTo(1 / 2.4, 12);
  expect(coatShare({ ...coat, fluidFactor: 1.2 }, USUAL_GUN)).toBeCloseTo(1.2, 12);
  expect(coatShare({ ...coat, reducerShift: 0.1 }, USUAL_GUN)).toBeCloseTo(needleFlow(0, 0.1) / 1.1, 12);
  expect(coatShare({ ...coat, overlapShift: 0.25 }, USUAL_GUN)).toBeCloseTo(2, 12); // 75 % of the fan again: twice as many passes
  expect(coatShare({ ...coat, distanceFactor: 0.95 }, USUAL_GUN)).toBeGreaterThan(1.05); // closer: a narrower fan, and less flies past
  for (const zone of COAT_ZONE_KEYS.filter((z) => z !== "whole")) expect(coatShare({ ...coat, zone }, USUAL_GUN)).toBe(0);
});

test("a way that holds the gun near and low moves the hand fast enough for a usual film", () => {
  const gun = startGun(houseWay("near-fast"));
  expect(gun).toMatchObject({ distance_m: 0.12, pressure_Pa: 1.25e5 });
  expect(gun.handSpeed_m_s).toBeGreaterThan(0.45); // common practice: closer needs a faster hand
  expect(deposit(gun, conditions).dry_m).toBeCloseTo(deposit(USUAL_GUN, conditions).dry_m, 12);
  expect(startGun(houseWay("two-full"))).toEqual(USUAL_GUN);
});

test("a second coat is made heavier by fluid, pressure, distance or hand: each lays more than the first", () => {
  const coat = usualCoat();
  for (const heavier of [{ fluidFactor: 1.12 }, { distanceFactor: 0.9 }, { speedFactor: 0.9 }, { overlapShift: 0.1 }])
    expect(coatShare({ ...coat, ...heavier }, USUAL_GUN)).toBeGreaterThan(1.05);
  expect(coatShare(plannedCoat(houseWay("second-heavier"), 2), USUAL_GUN)).toBeGreaterThan(1.1);
});

test("every way of the trade is a whole way; none that is not can be kept", () => {
  for (const way of HOUSE_WAYS) expect({ ...houseWayBody.parse(way), id: way.id, source: way.source }).toEqual(way);
  const [first] = HOUSE_WAYS;
  for (const wrong of [
    { coats: [] },
    { name: " " },
    { coats: [{ ...first!.coats[0], speedFactor: 0 }] },
    { lastPaper: 60 },
    { flatten: { ...first!.flatten, removal_m: 1e-3 } },
    { correctAfter_s: Number.NaN },
  ])
    expect(houseWayBody.safeParse({ ...first, ...wrong }).success).toBe(false);
});

describe("schools of the gun: near or far, low or high, needle closed or open, fan (common practice)", () => {
  const UPRIGHT = { air_K: 293.15, speed: "medium", volumeSolids: 0.5, reducer: 0 } as const;
  const film = (gun: GunSettings) => deposit(gun, UPRIGHT).dry_m;
  test.each(HOUSE_WAYS.map((w) => [w.name, w] as const))("%s: upright its gun lays a usual film, lying never less", (_, way) => {
    expect(film(startGun(way)) / film(USUAL_GUN)).toBeCloseTo(1, 6);
    expect(film(startGun(way, { lying: true }))).toBeGreaterThanOrEqual(film(startGun(way)) * (1 - 1e-9));
  });
  test("far with an open needle: about 3 turns upright, 4 lying, a faster hand than with a closed one", () => {
    const [far, low] = [startGun(houseWay("far-full")), startGun(houseWay("low-closed"))];
    expect(far.turns).toBe(3);
    expect(startGun(houseWay("far-full"), { lying: true }).turns).toBe(4);
    expect(far.fluidRate_m3_s).toBeGreaterThan(low.fluidRate_m3_s);
    expect(far.handSpeed_m_s / startGun(houseWay("two-full")).handSpeed_m_s).toBeGreaterThan(0.85);
    expect(low.pressure_Pa).toBeLessThan(USUAL_GUN.pressure_Pa);
  });
  test("a part lies below 30°, whichever way it is turned", () => {
    expect([0, 0.4, Math.PI, Math.PI - 0.2].map(isLying)).toEqual([true, true, true, true]);
    expect([0.6, Math.PI / 2, 2].map(isLying)).toEqual([false, false, false]);
  });
});
