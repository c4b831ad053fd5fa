import type { CoatZone } from "#core/models/ways/terms";
import { panelShape } from "../kernel/geometry/shapes";
import { USUAL_GUN } from "../models/spray/usual-gun";
import { houseWay } from "../models/ways/house-ways";
import type { EntryOf } from "../record/entry";
import { isOf, potInHand, potsOf, sprayedVolume } from "./pots";

const MIN = 60_000;
const mix = (id: string, at_min: number, over: Partial<EntryOf<"mix">["body"]> = {}): EntryOf<"mix"> =>
  ({
    id,
    panelId: "tank",
    kind: "mix",
    seq: at_min,
    at_ms: at_min * MIN,
    body: { volume_m3: 300e-6, reducer: 0.05, potLife_s: 3600, parts: [], product: "", panels: [], ...over },
  }) as unknown as EntryOf<"mix">;
const coat = (panelId: string, at_min: number, over: Partial<EntryOf<"coat">["body"]> = {}): EntryOf<"coat"> =>
  ({
    id: `${panelId} ${at_min}`,
    panelId,
    kind: "coat",
    seq: at_min,
    at_ms: at_min * MIN,
    body: { number: 1, potId: null, volume_m3: 40e-6, ...over },
  }) as unknown as EntryOf<"coat">;

test("one pot over several parts: every coat that came out of it takes its share, whatever part it went on", () => {
  const [pot] = potsOf([mix("p", 0)], [coat("tank", 5), coat("left cover", 8), coat("right cover", 11)]);
  expect(pot!.taken.map((t) => t.panelId)).toEqual(["tank", "left cover", "right cover"]);
  expect(pot!.left_m3).toBeCloseTo(180e-6, 12);
});

test("a second pot: a coat that names one is of that; one that names none is of the newest that lived then", () => {
  const pots = potsOf([mix("a", 0), mix("b", 30)], [coat("x", 20), coat("x", 40), coat("y", 45, { potId: "a" }), coat("y", 200)]);
  expect(pots.map((p) => p.taken.map((t) => t.coatId))).toEqual([["x 20", "y 45"], ["x 40"]]);
});

test("the pot in the hand lives and has something in it; a pot put right keeps its coats", () => {
  const pots = potsOf([mix("a", 0, { volume_m3: 30e-6 }), mix("b", 10)], [coat("x", 5)]);
  expect(potInHand(pots, 20 * MIN)!.entry.id).toBe("b");
  expect(potInHand(pots, 80 * MIN)).toBeNull();
  expect(potInHand(potsOf([mix("a", 0, { volume_m3: 30e-6 })], [coat("x", 5)]), 20 * MIN)).toBeNull(); // empty
  const [right] = potsOf([{ ...mix("a2", 0), seq: 99 }], [coat("x", 5, { potId: "a" })]);
  expect(right!.taken).toHaveLength(1);
});

test("what is not known is not counted; nothing is left below nothing", () => {
  expect(potsOf([mix("a", 0)], [coat("x", 5, { volume_m3: null })])[0]!.left_m3).toBeCloseTo(300e-6, 12);
  expect(potsOf([mix("a", 0)], [coat("x", 5, { volume_m3: 1e-3 })])[0]!.left_m3).toBe(0);
});

test("a base's pot is none of the clear's; an older entry without a product is the panel's own", () => {
  expect(isOf(mix("a", 0, { product: "Base B" }), { name: "Clear T" })).toBe(false);
  expect(isOf(mix("a", 0, { product: "Clear T" }), { name: "Clear T" })).toBe(true);
  expect(isOf(mix("a", 0), { name: "Clear T" })).toBe(true);
});

test("a coat takes what its strokes put through the gun; a held trigger takes more, spots a share, a broken setting says nothing", () => {
  const shape = panelShape("mirrorCap", { width_m: 0.22, height_m: 0.15 });
  const settings = { ...USUAL_GUN, fluidFrom: "turns" as const, fan_m: null };
  const taken = (wayId: string, over: object = {}, zone: CoatZone = "whole") =>
    sprayedVolume({ shape }, houseWay(wayId), { settings: { ...settings, ...over }, zone, number: 1 });
  const usual = taken("two-full")!;
  expect(usual).toBeGreaterThan(5e-6);
  expect(taken("near-fast")!).toBeGreaterThan(usual);
  expect(taken("two-full", {}, "spots")).toBeCloseTo(usual / 4, 12);
  for (const half of ["lower", "upper"] as const) expect(taken("two-full", {}, half)).toBeCloseTo(usual / 2, 12);
  expect(taken("two-full", {}, "edges")).toBeGreaterThan(0);
  expect(taken("two-full", {}, "edges")).toBeLessThanOrEqual(usual);
  expect(taken("two-full", { handSpeed_m_s: 0.001 })).toBeNull();
});
