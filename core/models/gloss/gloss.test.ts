import fc from "fast-check";
import {
  GLOSS_ANGLES,
  TOOL_ROUGHNESS_M,
  angleToRead,
  fresnelReflectance,
  roughGloss,
  roughnessAfter,
  roughnessFromGloss,
} from "#core/models/gloss/fresnel-gloss";
import { glossSummary } from "#core/models/gloss/gloss-statistics";
import { decreasingFit } from "#core/models/gloss/isotonic";
import { matteCurve, matteMix, nearestLevel, nextCard } from "#core/models/gloss/matte-fit";
import { MATTE_RULES, MATTE_TENDENCIES } from "#core/models/gloss/matte-knowledge";
import { monotoneCubic } from "#core/models/gloss/pchip";
import { seededRandom } from "#core/kernel/stats/random";

const cards = (gloss: number[], shares = gloss.map((_, i) => i / (gloss.length - 1))) =>
  gloss.map((gloss_GU, i) => ({ id: `card ${i + 1}`, share: shares[i]!, gloss_GU }));
const FIVE = cards([90, 62, 34, 18, 9]);
const answer = (list: typeof FIVE, target: number) => matteMix(list, target, { random: seededRandom(1) });

describe("gloss of a surface", () => {
  test("straight on, Fresnel is ((n − 1)/(n + 1))² (textbook optics), at grazing it is 1", () => {
    expect(fresnelReflectance(1.5, 0)).toBeCloseTo(0.04, 12);
    expect(fresnelReflectance(1.5, Math.PI / 2)).toBeCloseTo(1, 12);
  });
  test("the standard black glass reads 100 GU at every angle by definition (ISO 2813, from memory)", () => {
    for (const angle of GLOSS_ANGLES) expect(roughGloss({ index: 1.567, roughness_m: 0, angle })).toBe(100);
  });
  test("reflectance stays within 0…1 and gloss falls with roughness; roughness comes back from gloss", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1.3, max: 2, noNaN: true }),
        fc.double({ min: 1, max: 120, noNaN: true }),
        fc.constantFrom(...GLOSS_ANGLES),
        (index, nm, angle) => {
          const r = fresnelReflectance(index, (angle * Math.PI) / 180);
          expect(r >= 0 && r <= 1).toBe(true);
          const g = roughGloss({ index, roughness_m: nm * 1e-9, angle });
          expect(g).toBeLessThan(roughGloss({ index, roughness_m: 0, angle }));
          if (g > 1e-6) expect(roughnessFromGloss({ index, gloss_GU: g, angle }) * 1e9).toBeCloseTo(nm, 4);
        },
      ),
    );
  });
  test("passes approach a tool's own roughness, from above or below", () => {
    expect(roughnessAfter(150e-9, "P3000", 0)).toBeCloseTo(150e-9, 15);
    expect(roughnessAfter(150e-9, "P3000", 12)).toBeCloseTo(TOOL_ROUGHNESS_M.P3000, 11);
    expect(roughnessAfter(10e-9, "P3000", 2)).toBeGreaterThan(10e-9);
  });
  test("which angle to read (ISO 2813 ranges, from memory)", () => {
    expect([5, 12, 70, 71].map((g) => angleToRead(g).angle)).toEqual([85, 60, 60, 20]);
  });
  test.each([NaN, -1, 0.9, Infinity])("an index of %p is refused", (index) => {
    expect(() => fresnelReflectance(index, 1)).toThrow(RangeError);
  });
});

describe("monotone regression and monotone cubic", () => {
  test("worked example: 5 3 4 1 pools the middle pair; weights pull the pool (pool-adjacent-violators, by hand)", () => {
    expect(decreasingFit([5, 3, 4, 1])).toEqual({ fitted: [5, 3.5, 3.5, 1], pooled: [false, true, true, false] });
    expect(decreasingFit([1, 2, 3]).fitted).toEqual([2, 2, 2]);
    expect(decreasingFit([3, 4], [3, 1]).fitted).toEqual([3.25, 3.25]);
  });
  test("the fit never rises, keeps the weighted mean and is no worse than any other falling sequence tried", () => {
    const list = fc.array(fc.double({ min: 1, max: 100, noNaN: true }), { minLength: 2, maxLength: 8 });
    fc.assert(
      fc.property(list, list, (values, other) => {
        const { fitted } = decreasingFit(values);
        fitted.slice(1).forEach((f, i) => expect(f).toBeLessThanOrEqual(fitted[i]! + 1e-9));
        const sum = (a: number[]) => a.reduce((x, y) => x + y, 0);
        expect(sum(fitted)).toBeCloseTo(sum(values), 6);
        const rival = [...values.map((_, i) => other[i % other.length]!)].sort((a, b) => b - a);
        const error = (f: number[]) => sum(f.map((v, i) => (v - values[i]!) ** 2));
        expect(error(fitted)).toBeLessThanOrEqual(error(rival) + 1e-9);
      }),
    );
  });
  test("monotone data give a monotone curve through every point", () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0.01, max: 5, noNaN: true }), { minLength: 2, maxLength: 8 }), (drops) => {
        const x = [0, ...drops.map((_, i) => i + 1)];
        const y = drops.reduce<number[]>((list, d) => [...list, list.at(-1)! - d], [0]);
        const f = monotoneCubic(x, y);
        x.forEach((v, i) => expect(f(v)).toBeCloseTo(y[i]!, 9));
        let last = Infinity;
        for (let t = 0; t <= x.length - 1; t += 0.05) {
          expect(f(t)).toBeLessThanOrEqual(last + 1e-9);
          last = f(t);
        }
      }),
    );
  });
  test("a straight line stays straight", () => {
    const f = monotoneCubic([0, 1, 3], [1, 3, 7]);
    for (const t of [0.2, 0.9, 1.7, 2.9]) expect(f(t)).toBeCloseTo(1 + 2 * t, 12);
  });
});

describe("which matte mix", () => {
  test("0, ¼, ½, ¾, 1 with 90, 62, 34, 18, 9 GU, wanted 25: .623, .60 to .645", () => {
    const a = answer(FIVE, 25)!;
    expect(a.share).toBeCloseTo(0.623, 3);
    expect(a.slope_GU_per_point * 100).toBeCloseTo(-63.3, 0);
    expect([a.low > 0.59 && a.low < 0.61, a.high > 0.635 && a.high < 0.65]).toEqual([true, true]);
    expect(a).toMatchObject({ few: false, against: [], cards: 5 });
  });
  test("a card out of order is pooled and named", () => {
    const a = answer(cards([90, 62, 34, 38, 9]), 25)!;
    expect(a.against).toEqual(["card 3", "card 4"]);
    expect(a.share).toBeGreaterThan(0.75);
  });
  test("two cards refuse a fit; the sheet's nearest level is offered instead; three are called few", () => {
    expect(() => answer(cards([90, 9]), 25)).toThrow("cards must have at least 3 different shares, got 2");
    const levels = [
      { share: 0.4, gloss60_GU: 45 },
      { share: 0.6, gloss60_GU: 28 },
      { share: 0.8, gloss60_GU: 14 },
    ];
    expect(nearestLevel(levels, 25)).toEqual({ share: 0.6, gloss60_GU: 28 });
    expect(nearestLevel([], 25)).toBeNull();
    expect(answer(cards([90, 40, 9]), 25)!.few).toBe(true);
  });
  test("a target that no card brackets has no answer", () => {
    expect(answer(FIVE, 95)).toBeNull();
    expect(answer(FIVE, 5)).toBeNull();
  });
  test("more cards narrow the interval; the order of cards does not matter", () => {
    const three = answer(cards([90, 34, 9]), 25)!;
    expect(answer(FIVE, 25)!.u_share).toBeLessThan(three.u_share);
    const c = matteCurve([...FIVE].reverse());
    for (const x of [0.1, 0.4, 0.9]) expect(c.at(x)).toBeCloseTo(matteCurve(FIVE).at(x), 12);
  });
  test("the next card is the mix itself until it has been sprayed, then the widest gap beside it", () => {
    expect(nextCard(FIVE, { share: 0.623 }).share).toBe(0.62);
    expect(nextCard([...FIVE, { id: "6", share: 0.62, gloss_GU: 25 }], { share: 0.623 }).share).toBeLessThan(0.75);
    expect(nextCard([], null).share).toBe(0.5);
  });
});

test("a panel's gloss: mean, spread, evenness", () => {
  expect(glossSummary(60, [12, 12.4, 11.8])).toMatchObject({ n: 3, uniform: true, words: "even" });
  expect(glossSummary(60, [12, 16, 11.8])).toMatchObject({ uniform: false, lowest_GU: 11.8, highest_GU: 16 });
  expect(glossSummary(60, [12]).words).toContain("too few");
  expect(() => glossSummary(60, [201])).toThrow(RangeError);
});

test("matte rules and tendencies: ids unique, every direction in use", () => {
  expect(new Set(MATTE_RULES.map((r) => r.id)).size).toBe(MATTE_RULES.length);
  expect(new Set(MATTE_TENDENCIES.map((r) => r.id)).size).toBe(MATTE_TENDENCIES.length);
  expect(new Set(MATTE_TENDENCIES.map((r) => r.moves))).toEqual(new Set(["up", "down", "patchy"]));
});
