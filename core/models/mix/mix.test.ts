import fc from "fast-check";
import { mixAmount } from "#core/models/mix/amount";
import { FLOW_CUPS, FLOW_CUP_IDS, cupFromViscosity, viscosityFromCup } from "#core/models/product/flow-cup";
import { passTime, splitPots } from "#core/models/mix/pots";
import { mixShares, parseRatio, ratioText, readRatio, reducerOnActivated } from "#core/models/product/ratio";
import { REDUCTION_SCHOOLS, reductionCost } from "#core/models/mix/reduction";
import { vocOf } from "#core/models/mix/voc";
import { POUR_TOLERANCE, pourState, pourTargets } from "#core/models/mix/weigh";

const share = fc.double({ min: 0.01, max: 0.5, noNaN: true });

describe("ratios as they stand on cans", () => {
  test.each([
    ["2:1", [2, 1]],
    ["4 : 1", [4, 1]],
    ["3:1:1", [3, 1, 1]],
    ["7:1:2,5", [7, 1, 2.5]],
    ["1", [1]],
  ])("%s", (text, parts) => {
    expect(parseRatio(text)).toEqual({ ok: true, parts });
  });
  test.each([
    ["", "Type a ratio such as 2:1"],
    ["2:0", "Every part must be above 0 and at most 1000"],
    ["two to one", '"two to one" is not a ratio; write it as 2:1 or 3:1:1'],
    ["2:-1", '"2:-1" is not a ratio; write it as 2:1 or 3:1:1'],
    ["1:1:1:1:1:1", "A ratio has at most 5 parts"],
  ])("%p is refused", (text, message) => {
    expect(parseRatio(text)).toEqual({ ok: false, message });
  });

  const on = (min: number, max = min) => ({ min, max });
  test.each([
    ["2:1", [2, 1], null],
    ["2 : 1 + 10 %", [2, 1], on(0.1)],
    ["2:1:10%", [2, 1], on(0.1)],
    ["2:1 10%", [2, 1], on(0.1)],
    ["2+1+10%", [2, 1], on(0.1)],
    ["4-1-1", [4, 1, 1], null],
    ["4-1-10%", [4, 1], on(0.1)],
    ["2:1:5-10 %", [2, 1], on(0.05, 0.1)],
    ["2:1 + 5–10%", [2, 1], on(0.05, 0.1)],
    ["3/1/1", [3, 1, 1], null],
    ["4 to 1", [4, 1], null],
    ["7:1:2,5", [7, 1, 2.5], null],
    ["100:50:12,5%", [100, 50], on(0.125)],
    ["1", [1], null],
  ])("as people write them: %s", (text, parts, reducer) => {
    expect(readRatio(text)).toEqual({ ok: true, parts, reducer });
  });
  test.each([
    ["2:-1", '"2:-1" is not a ratio; write it as 2:1, 3:1:1 or 2:1 + 10 %'],
    ["10%", "Type a ratio such as 2:1"],
    ["2:1-1", '"2:1-1" is not a ratio; write it as 2:1, 3:1:1 or 2:1 + 10 %'],
    ["2:1 + 10-5%", "Reducer goes from 0 to 100 %, the least first"],
    ["2:1:400%", "Reducer goes from 0 to 100 %, the least first"],
    ["2:1%:1", '"2:1%:1" is not a ratio; write it as 2:1, 3:1:1 or 2:1 + 10 %'],
  ])("refused, in words: %s", (text, message) => {
    expect(readRatio(text)).toEqual({ ok: false, message });
  });
  test("whatever parts and reducer, written with any of the strokes, are read back as they are", () => {
    const part = fc.integer({ min: 1, max: 1000 }).map((n) => n / 10);
    const written = fc.record({
      parts: fc.array(part, { minLength: 2, maxLength: 5 }),
      stroke: fc.constantFrom(":", " : ", "-", "/", "+"),
      per: fc.option(fc.integer({ min: 0, max: 100 }), { nil: null }),
    });
    fc.assert(
      fc.property(written, ({ parts, stroke, per }) => {
        const read = readRatio(parts.join(stroke) + (per === null ? "" : `${stroke}${per} %`));
        expect(read).toEqual({ ok: true, parts, reducer: per === null ? null : on(per / 100) });
        expect(parseRatio(ratioText(parts))).toEqual({ ok: true, parts });
      }),
    );
  });

  test("the two meanings of 10 % are told apart: 10 on top of 100, or 10 in 100", () => {
    const top = mixShares([2, 1], { reducer: 0.1, meaning: "activated" });
    const within = mixShares([2, 1], { reducer: 0.1, meaning: "finished" });
    expect(top.map((p) => p.share)).toEqual([
      expect.closeTo(2 / 3 / 1.1, 12),
      expect.closeTo(1 / 3 / 1.1, 12),
      expect.closeTo(0.1 / 1.1, 12),
    ]);
    expect(within.map((p) => p.share)).toEqual([expect.closeTo(0.6, 12), expect.closeTo(0.3, 12), expect.closeTo(0.1, 12)]);
    expect(reducerOnActivated(0.1, "finished")).toBeCloseTo(1 / 9, 12);
    expect(reducerOnActivated(0.1, "activated")).toBe(0.1);
  });
  test("percent reducer adds to a ratio that already holds some", () => {
    const parts = mixShares([3, 1, 1], { reducer: 0.1 });
    expect(parts.map((p) => p.role)).toEqual(["clear", "hardener", "reducer"]);
    expect(parts[2]!.share).toBeCloseTo((0.2 + 0.1) / 1.1, 12);
  });
  test("shares always add up to one and keep the ratio of clear to hardener", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.2, max: 20, noNaN: true }),
        share,
        fc.constantFrom("activated" as const, "finished" as const),
        (clear, reducer, meaning) => {
          const parts = mixShares([clear, 1], { reducer, meaning });
          expect(parts.reduce((a, p) => a + p.share, 0)).toBeCloseTo(1, 12);
          expect(parts[0]!.share / parts[1]!.share).toBeCloseTo(clear, 9);
        },
      ),
    );
  });
  test.each([
    [[0, 1], 0],
    [[2, 1], -0.1],
    [[2, 1], 1.01],
    [[2, NaN], 0],
  ] as [number[], number][])("parts %p with reducer %p are refused", (parts, reducer) => {
    expect(() => mixShares(parts, { reducer })).toThrow(RangeError);
  });
});

describe("three panels, two coats of 28 µm, 48 % solids, 65 % transfer, 2:1 + 10 %: by hand", () => {
  // Area 2 × 1.1 × 0.7 + 1.4 × 1.2 = 3.22 m². Solids 3.22 m² × 56 µm = 180.32 ml; sprayed 180.32/0.65 = 277.415 ml;
  // activated 277.415/0.48 = 577.949 ml; + 10 % = 635.744 ml. Clear 2/3 of the activated = 385.299, hardener 192.650, reducer 57.795 ml.
  const amount = mixAmount({
    parts: [
      { area_m2: 1.1 * 0.7, bothSides: false },
      { area_m2: 1.1 * 0.7, bothSides: false },
      { area_m2: 1.4 * 1.2, bothSides: false },
    ],
    coats: 2,
    dryFilm_m: 28e-6,
    volumeSolids: 0.48,
    reducer: 0.1,
    transfer: 0.65,
  });
  test("litres", () => {
    expect(amount.area_m2).toBeCloseTo(3.22, 12);
    expect(amount.activated_m3 * 1e6).toBeCloseTo(577.949, 2);
    expect(amount.ready_m3 * 1e6).toBeCloseTo(635.744, 2);
    expect(amount.wetPerCoat_m * 1e6).toBeCloseTo((28 * 1.1) / 0.48, 9);
  });
  test("grams: clear 1.00, hardener 1.05, reducer 0.86 g/ml", () => {
    const densities = [1000, 1050, 860];
    const parts = mixShares([2, 1], { reducer: 0.1 }).map((p, i) => ({ ...p, density_kg_m3: densities[i]! }));
    const targets = pourTargets(parts, amount.ready_m3);
    expect(targets.map((t) => Number((t.mass_kg * 1e3).toFixed(2)))).toEqual([385.3, 202.28, 49.7]);
    expect(targets.map((t) => Number((t.upTo_kg * 1e3).toFixed(2)))).toEqual([385.3, 587.58, 637.28]);
    expect(targets.at(-1)!.mark).toBeCloseTo(1, 12);
  });
  test("both sides double it, waste and dead volume add, uncertainty follows film and transfer", () => {
    const one = { parts: [{ area_m2: 1, bothSides: false }], coats: 1, dryFilm_m: 50e-6, volumeSolids: 0.5, reducer: 0, transfer: 0.5 };
    expect(mixAmount(one).ready_m3 * 1e6).toBeCloseTo(200, 9);
    expect(mixAmount({ ...one, parts: [{ area_m2: 1, bothSides: true }] }).ready_m3 * 1e6).toBeCloseTo(400, 9);
    expect(mixAmount({ ...one, waste: 0.1, dead_m3: 30e-6 }).ready_m3 * 1e6).toBeCloseTo(250, 9);
    expect(mixAmount({ ...one, u_dryFilm_m: 5e-6, u_transfer: 0.05 }).u_ready_m3 * 1e6).toBeCloseTo(200 * Math.hypot(0.1, 0.1), 9);
  });
  test("nothing to spray and figures outside sense are refused", () => {
    expect(() => mixAmount({ parts: [], coats: 1, dryFilm_m: 5e-5, volumeSolids: 0.5, reducer: 0, transfer: 0.6 })).toThrow("parts");
    expect(() =>
      mixAmount({ parts: [{ area_m2: 1, bothSides: false }], coats: 1, dryFilm_m: 5e-5, volumeSolids: 0.5, reducer: 1.01, transfer: 0.6 }),
    ).toThrow("reducer");
  });
});

describe("pouring", () => {
  const parts = mixShares([2, 1], { reducer: 0.1 }).map((p, i) => ({ ...p, density_kg_m3: [1000, 1050, 860][i]! }));
  const volume_m3 = 600e-6;
  const targets = pourTargets(parts, volume_m3);
  const all = (poured_kg: number[], capacity_m3 = 1e-3, done = 3) => pourState({ parts, volume_m3, poured_kg, done, capacity_m3 });

  test("8 g too much hardener: adding what is said restores the ratio within 0.5 %", () => {
    const state = all([targets[0]!.mass_kg, targets[1]!.mass_kg + 8e-3, 0], 1e-3, 2);
    expect(state.corrected).toBe(true);
    expect(state.parts.map((p) => p.state)).toEqual(["open", "over", "open"]);
    const mixed = state.parts.map((p, i) => (p.poured_kg + p.add_kg) / parts[i]!.density_kg_m3);
    expect(mixed[0]! / mixed[1]! / 2).toBeCloseTo(1, 12);
    expect(mixed[2]! / (mixed[0]! + mixed[1]!) / 0.1).toBeCloseTo(1, 12);
    expect(mixed.reduce((a, v) => a + v, 0)).toBeCloseTo(state.volume_m3, 15);
    expect(state.over_m3).toBe(0);
  });
  test("the same in a pot of 610 ml: it says by how much the pot is too small", () => {
    const state = all([targets[0]!.mass_kg, targets[1]!.mass_kg + 8e-3, 0], 610e-6);
    expect(state.over_m3).toBeCloseTo(state.volume_m3 - 610e-6, 15);
    expect(state.over_m3).toBeGreaterThan(5e-6);
  });
  test("inside the band nothing is mended; when all is in, nothing is left to do", () => {
    const near = targets.map((t) => t.mass_kg * (1 + POUR_TOLERANCE * 0.5));
    expect(all(near)).toMatchObject({ corrected: false, current: null });
    expect(all(near).parts.every((p) => p.state === "in")).toBe(true);
  });
  test("whatever was poured, the mended mix has the ratio and only ever grows", () => {
    const pour = fc.double({ min: 0, max: 0.8, noNaN: true });
    fc.assert(
      fc.property(pour, pour, pour, (a, b, c) => {
        const state = all([a, b, c]);
        const mixed = state.parts.map((p, i) => Math.max(p.target_kg, p.poured_kg) / parts[i]!.density_kg_m3 / parts[i]!.share);
        for (const m of mixed) expect(Math.abs(m / state.volume_m3 - 1)).toBeLessThan(POUR_TOLERANCE + 1e-9);
        expect(state.volume_m3).toBeGreaterThanOrEqual(volume_m3 * (1 - 1e-12));
      }),
    );
  });
  test("a negative density is refused", () => {
    expect(() => pourTargets([{ role: "clear", share: 1, density_kg_m3: -1 }], 1e-3)).toThrow("density");
  });
});

describe("flow cups: the printed formulas (ISO 2431, ASTM D1200, DIN 53211; coefficients from memory)", () => {
  test.each([
    ["iso4", 50, 64.5],
    ["ford4", 30, 98.2],
    ["din4", 30, 122.0],
    ["iso6", 45, 297.8],
  ] as const)("%s %d s is %d mm²/s", (cup, t, nu) => {
    expect(viscosityFromCup(cup, t) * 1e6).toBeCloseTo(nu, 1);
  });
  test("there and back for every cup over its range; outside it is refused", () => {
    for (const cup of FLOW_CUP_IDS) {
      const { from_s, to_s } = FLOW_CUPS[cup];
      fc.assert(
        fc.property(fc.double({ min: from_s, max: to_s, noNaN: true }), (t) => {
          expect(cupFromViscosity(cup, viscosityFromCup(cup, t))).toBeCloseTo(t, 6);
        }),
        { numRuns: 30 },
      );
      expect(() => viscosityFromCup(cup, to_s + 1)).toThrow(RangeError);
    }
  });
});

describe("what leaves into the air", () => {
  const clear = { volume_m3: 1e-3, density_kg_m3: 1000, volatile: 0.52, water: 0, exempt: 0, exemptDensity_kg_m3: 1000 };
  test("without water and exempt solvent both forms agree", () => {
    const v = vocOf([clear]);
    expect(v.actual_kg_m3).toBeCloseTo(520, 9);
    expect(v.regulatory_kg_m3).toBeCloseTo(v.actual_kg_m3, 9);
  });
  test("water is taken out of both top and bottom of the regulatory form (ASTM D3960 form, from memory), by hand", () => {
    // 1 L at 1000 g/L, 60 % volatile of which 40 points are water: organic 200 g; water 400/997 L leaves .59880 L: 334.0 g/L.
    const v = vocOf([{ ...clear, volatile: 0.6, water: 0.4 }]);
    expect(v.actual_kg_m3).toBeCloseTo(200, 9);
    expect(v.regulatory_kg_m3).toBeCloseTo(200 / (1 - 400 / 997), 6);
  });
  test("more water than volatile, or no part, is refused", () => {
    expect(() => vocOf([{ ...clear, water: 0.6 }])).toThrow("water");
    expect(() => vocOf([])).toThrow("parts");
  });
});

describe("reduction and pots", () => {
  test("10 % beyond a 10 % sheet costs 8 % of the dry film and a fifth of a coat", () => {
    const sheet = { volumeSolids: 0.48, wetPerCoat_m: 64e-6, dryWanted_m: 55e-6, sheetMost: 0.1 };
    const by = reductionCost({ ...sheet, reducer: 0.1 });
    const over = reductionCost({ ...sheet, reducer: 0.2 });
    expect(by).toMatchObject({ beyondSheet: false, lossAgainstSheet: 0 });
    expect(over.beyondSheet).toBe(true);
    expect(by.coats).toBeCloseTo((55 * 1.1) / (64 * 0.48), 12);
    expect(over.coats / by.coats).toBeCloseTo(1.2 / 1.1, 12);
    expect(over.lossAgainstSheet).toBeCloseTo(1 - 1.1 / 1.2, 12);
    expect(new Set(REDUCTION_SCHOOLS.map((s) => s.id)).size).toBe(REDUCTION_SCHOOLS.length);
  });
  test("pots are split so that each is sprayed within its life", () => {
    const coats = [1, 2, 3].map((number) => ({
      number,
      volume_m3: 300e-6,
      start_s: (number - 1) * 2000,
      end_s: (number - 1) * 2000 + 600,
    }));
    const pots = splitPots(coats, { potLife_s: 3600 });
    expect(pots.map((p) => p.coats)).toEqual([[1], [2], [3]]);
    expect(splitPots(coats, { potLife_s: 7200 }).map((p) => p.coats)).toEqual([[1, 2, 3]]);
    expect(splitPots(coats, { potLife_s: 7200 })[0]!.volume_m3).toBeCloseTo(900e-6, 12);
    for (const p of pots) expect(coats[p.coats.at(-1)! - 1]!.end_s).toBeLessThan(p.overAt_s);
    expect(() => splitPots(coats, { potLife_s: 900 })).toThrow("coat 1 must be sprayed within");
  });
  test("1 m² with 250 mm fan, half over, at 0.5 m/s takes 16 s of passes", () => {
    expect(passTime({ area_m2: 1, fan_m: 0.25, overlap: 0.5, handSpeed_m_s: 0.5, turning: 0 })).toBeCloseTo(16, 12);
  });
});
