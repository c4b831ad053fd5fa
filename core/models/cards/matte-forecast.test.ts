import fc from "fast-check";
import { testCard } from "./testing/test-card";
import type { CardBody } from "./card";
import { type MatteFace, chanceApart, matteForecast } from "./matte-forecast";
import { rowOfShares } from "./row-of-shares";

const card = (share: number, gloss_GU: number, over: Partial<CardBody> = {}) =>
  testCard({
    name: `${share} ${over.cure ?? "air"} ${over.orientation ?? "vertical"}`,
    mattingShare: share,
    gloss: [{ angle: 60, gloss_GU }],
    ...over,
  });
const LADDER = [card(0, 88), card(0.4, 44), card(0.6, 26), card(0.85, 12.6), card(1, 8)];
const LEVELS = [
  { share: 0.4, gloss60_GU: 44 },
  { share: 0.85, gloss60_GU: 13 },
  { share: 1, gloss60_GU: 8 },
];
const upright: MatteFace = { orientation: "vertical", cure: "air" };
const forecast = (face: MatteFace, cards = LADDER, over: Partial<Parameters<typeof matteForecast>[0]> = {}) =>
  matteForecast({ share: 0.85, face, cards, levels: LEVELS, ...over });

test("from cards sprayed as the face is: the card's own gloss, its span a few units", () => {
  const f = forecast(upright)!;
  expect(f).toMatchObject({ from: "cards", cards: 5, film: null });
  expect(f.gloss_GU).toBeCloseTo(12.6, 1);
  expect(f.u_GU).toBeGreaterThan(0.6);
  expect(f.u_GU).toBeLessThan(1.5);
});

test("a pair of cards shows what the oven does; a face that is baked takes it over; without a pair the span opens", () => {
  const pair = [...LADDER, card(0.85, 12.6 * 1.2, { cure: "forced", name: "baked" })];
  const baked: MatteFace = { orientation: "vertical", cure: "forced" };
  const shown = forecast(baked, pair)!;
  expect(shown).toMatchObject({ from: "moved cards" });
  expect(shown.gloss_GU).toBeCloseTo(12.6 * 1.2, 1);
  const unknown = forecast(baked)!;
  expect(unknown).toMatchObject({ from: "other cards" });
  expect(unknown.gloss_GU).toBeCloseTo(12.6, 1);
  expect(unknown.u_GU).toBeGreaterThan(1.8 * forecast(upright)!.u_GU);
  expect(unknown.u_GU / unknown.gloss_GU).toBeGreaterThan(shown.u_GU / shown.gloss_GU);
});

test("no card: between the sheet's levels, and wide; outside cards and levels nothing is said", () => {
  expect(forecast(upright, [])).toMatchObject({ from: "sheet", cards: 0 });
  expect(forecast(upright, [])!.gloss_GU).toBeCloseTo(13, 6);
  expect(forecast(upright, [], { share: 0.2 })).toBeNull();
  expect(forecast(upright, [], { levels: [] })).toBeNull();
  expect(forecast(upright, [card(0.85, 12), card(1, 8)], { levels: [] })).toBeNull();
});

test("a film other than the cards' is said by its direction: thicker reads brighter, and the span grows the further it lies from theirs", () => {
  const at = (film_um: number, cards = LADDER) => forecast(upright, cards, { film_m: film_um * 1e-6 })!;
  const own_um = 1e6 * LADDER[0]!.dryFilm_m!;
  expect(at(own_um).gloss_GU).toBeCloseTo(forecast(upright)!.gloss_GU, 9);
  expect(at(own_um + 20)).toMatchObject({ film: "thicker" });
  expect(at(own_um - 15)).toMatchObject({ film: "thinner" });
  // Half of 0.25 GU a µm; set to common practice.
  expect(at(own_um + 20).gloss_GU - at(own_um).gloss_GU).toBeCloseTo(2.5, 6);
  for (const more of [5, 10, 20, 30]) {
    expect(at(own_um + more).gloss_GU).toBeGreaterThan(at(own_um + more - 5).gloss_GU);
    expect(at(own_um + more).u_GU).toBeGreaterThan(at(own_um + more - 5).u_GU);
  }
});

test("a pair of cards that differ in film alone shows how much brighter thicker is, and narrows the span", () => {
  const own_m = LADDER[0]!.dryFilm_m!;
  const flat = [...LADDER, card(0.85, 12.6, { name: "thick", dryFilm_m: own_m + 30e-6 })];
  const thick = (cards: readonly CardBody[]) => forecast(upright, [...cards], { film_m: own_m + 30e-6 })!;
  expect(thick(flat).gloss_GU).toBeLessThan(thick(LADDER).gloss_GU);
  expect(thick(flat).u_GU).toBeLessThan(thick(LADDER).u_GU);
});

test("more matting component is never brighter, and the span holds the figure", () => {
  fc.assert(
    fc.property(fc.double({ min: 0, max: 1, noNaN: true }), fc.double({ min: 0, max: 1, noNaN: true }), (a, b) => {
      const [less, more] = [forecast(upright, LADDER, { share: Math.min(a, b) })!, forecast(upright, LADDER, { share: Math.max(a, b) })!];
      expect(more.gloss_GU).toBeLessThanOrEqual(less.gloss_GU + 1e-9);
      for (const f of [less, more]) {
        expect(f.low_GU).toBeLessThan(f.gloss_GU);
        expect(f.high_GU).toBeGreaterThan(f.gloss_GU);
      }
    }),
  );
});

test("two faces alike seldom differ so that it shows; 26 beside 22 GU mostly does not, 26 beside 18 does", () => {
  const f = (gloss_GU: number, ownLogSd = 0.05) => ({ gloss_GU, ownLogSd });
  expect(chanceApart(f(12), f(12))).toBeLessThan(0.03);
  expect(chanceApart(f(26.3), f(21.7))).toBeGreaterThan(0.5);
  expect(chanceApart(f(26), f(18))).toBeGreaterThan(0.99);
  expect(chanceApart(f(12, 0), f(12, 0))).toBe(0);
  expect(() => chanceApart(f(0), f(12))).toThrow(RangeError);
});

test("the charted mix and one either side, within the range", () => {
  expect(rowOfShares(0.85)).toEqual([0.75, 0.85, 0.95]);
  expect(rowOfShares(0.97)).toEqual([0.8, 0.9, 1]);
  expect(rowOfShares(0.5, 5)).toEqual([0.3, 0.4, 0.5, 0.6, 0.7]);
  expect(rowOfShares(1, 5)).toEqual([0.6, 0.7, 0.8, 0.9, 1]);
  expect(rowOfShares(0.02, 1)).toEqual([0.02]);
  expect(() => rowOfShares(1.2)).toThrow(RangeError);
  expect(() => rowOfShares(0.5, 0)).toThrow(RangeError);
});
