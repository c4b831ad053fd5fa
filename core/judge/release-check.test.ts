import fc from "fast-check";
import { panelShape, suggestSpots } from "../kernel/geometry/shapes";
import { FINISH_KEYS, type Finish } from "../models/ways/terms";
import { DEFECT_IDS } from "../models/defects/kinds";
import { neighbourOf } from "../panel/neighbour";
import { TEST_SHEET, testLedger } from "../panel/testing/test-ledger";
import { accountPanel } from "./account";
import { glossBeside } from "../models/gloss/gloss-beside";
import { type ReleaseInput, type ReleasePoint, releaseCheck } from "./release-check";

const shape = panelShape("door", { width_m: 1.1, height_m: 0.8 });
const brief = { shape, substrate: "refinish" as const, tilt_rad: Math.PI / 2, coatsPlanned: 2 };
const places = suggestSpots(shape.outline, 6);
type Ledger = ReturnType<typeof testLedger>;

function out(
  add: (l: Ledger) => unknown = () => undefined,
  { clear = 75, finish = "match", ...more }: Partial<ReleaseInput> & { clear?: number } = {},
) {
  const l = testLedger({ places });
  l.read("before", [92, 90, 94, 91, 93, 90]);
  l.coat(1);
  l.coat(2);
  l.read(
    "after",
    [92, 90, 94, 91, 93, 90].map((b) => b + clear),
  );
  add(l);
  const state = accountPanel(brief, TEST_SHEET, l.entries);
  return releaseCheck({ brief, state, finish, targetGloss_GU: null, floor_m: 35e-6, cured: { share: 1, left_s: 0 }, ...more });
}
const gloss = (role: "target" | "part", GU: number) => ({
  role,
  angle: 60 as const,
  place: "",
  meter: "typed",
  readings: [{ gloss_GU: GU, entered: String(GU) }],
});
const looked = (l: Ledger) => {
  l.add("lookedOver", {});
  l.add("texture", { role: "target", rating: 3, place: "" });
  l.add("texture", { role: "part", rating: 3, place: "" });
  l.add("gloss", gloss("part", 91));
  l.add("eye", { colour: "same", covered: true, light: "daylight" });
};
const stateOf = (g: ReturnType<typeof out>, what: ReleasePoint["what"]) => g.points.find((p) => p.what === what)?.state;

test("everything looked at and nothing against it: it goes out; with nothing looked at it is not known, and each missing point is named", () => {
  expect(out(looked).verdict).toBe("goes");
  const none = out();
  expect(none.verdict).toBe("not known");
  expect(none.points.filter((p) => p.state === "missing").map((p) => p.what)).toEqual(["faults", "texture", "colour", "coverage"]);
});

test("peel that was measured is not gone because part and neighbour were rated alike: it is named, and counts by how it stands out", () => {
  const peel = (height_um: number) => (l: Ledger) => {
    looked(l);
    l.add("texture", { role: "target", rating: 2, place: "" });
    l.add("texture", { role: "part", rating: 2, place: "" });
    const size = { length_m: null, width_m: null, height_m: height_um * 1e-6, measured: true };
    l.add("defect", { kind: "peel", at: { x_m: 0.5, y_m: 0.4 }, count: 1, ...size });
  };
  // 12 µm was told as: faults none, texture good.
  const twelve = out(peel(12));
  expect(twelve.points.find((p) => p.what === "faults")).toMatchObject({ state: "against", open: [{ kind: "peel" }] });
  expect(twelve.verdict).toBe("stays");
  expect(stateOf(out(peel(1)), "faults")).toBe("good");
});

test("with a coat still to come it stays, whatever else was looked at", () => {
  const l = testLedger({ places });
  l.coat(1);
  looked(l);
  const state = accountPanel(brief, TEST_SHEET, l.entries);
  const half = releaseCheck({ brief, state, finish: "match", targetGloss_GU: null, floor_m: 35e-6, cured: { share: 1, left_s: 0 } });
  expect(half.points[0]).toEqual({ what: "coats", state: "against", on: 1, of: 2 });
  expect(half.verdict).toBe("stays");
});

test("two matte faces of 26.3 and 21.7 GU get a word: seen side by side", () => {
  expect(glossBeside(26.3, 21.7)).toBe("against");
  expect(glossBeside(12, 12.9)).toBe("good");
  expect(glossBeside(12, 14.2)).toBe("look");
  const matte = out((l) => l.add("gloss", gloss("part", 26.3)), { finish: "matte", targetGloss_GU: 26, others_GU: [21.7] });
  expect(matte.points.find((p) => p.what === "gloss")).toMatchObject({
    state: "against",
    part_GU: 26.3,
    wanted_GU: 21.7,
    from: "other panel",
  });
  expect(
    stateOf(
      out((l) => l.add("gloss", gloss("part", 26.3)), { finish: "matte", targetGloss_GU: 26 }),
      "gloss",
    ),
  ).toBe("good");
  expect(out(() => undefined, { finish: "matte" }).points.some((p) => p.what === "texture")).toBe(false);
  expect(() => glossBeside(-1, 3)).toThrow(RangeError);
});

test("which way round two glosses are held beside each other does not matter, and nearer is never worse", () => {
  const rank = { good: 0, look: 1, against: 2 };
  const GU = fc.double({ min: 1, max: 100, noNaN: true });
  fc.assert(
    fc.property(GU, GU, (a, b) => {
      expect(glossBeside(a, b)).toBe(glossBeside(b, a));
      expect(rank[glossBeside(a, (a + b) / 2)]).toBeLessThanOrEqual(rank[glossBeside(a, b)]);
    }),
  );
});

test("texture against the neighbour's: the same, told apart, wrong; show flat wants glass; soft clear, thin film and colour in booth light are words", () => {
  const rated = (part: number) => (l: Ledger) => {
    looked(l);
    l.add("texture", { role: "part", rating: part, place: "" });
  };
  expect([3, 3.5, 4, 4.5].map((r) => stateOf(out(rated(r)), "texture"))).toEqual(["good", "good", "look", "against"]);
  expect([1, 1.5, 2.5, 3].map((r) => stateOf(out(rated(r), { finish: "flat" }), "texture"))).toEqual(["good", "good", "look", "against"]);
  expect(stateOf(out(looked, { cured: { share: 0.6, left_s: 7200 } }), "cured")).toBe("look");
  expect(stateOf(out(looked, { clear: 30 }), "film")).toBe("against");
  const booth = out((l) => {
    looked(l);
    l.add("eye", { colour: "same", covered: true, light: "booth" });
  });
  expect([stateOf(booth, "colour"), booth.verdict]).toEqual(["look", "look"]);
  const off = out((l) => {
    looked(l);
    l.add("eye", { colour: "off", covered: false, light: "sun" });
  });
  expect([stateOf(off, "colour"), stateOf(off, "coverage"), off.verdict]).toEqual(["against", "against", "stays"]);
});

test("two pictures of a light tube tell the texture where nobody rated it, and where both were looked at the worse counts", () => {
  const point = (own: number, beside: number, rating: number | null, finish: Finish = "match") =>
    out(
      (l) => {
        l.add("reflection", { own_rad: own * 1e-3, beside_rad: beside * 1e-3 });
        if (rating !== null) l.add("texture", { role: "part", rating, place: "" });
        if (rating !== null) l.add("texture", { role: "target", rating: 3, place: "" });
      },
      { finish },
    ).points.find((p) => p.what === "texture");
  expect(point(0.8, 0.8, null)).toMatchObject({ state: "good", part: null, pictures: { ratio: 1, differs: false } });
  // A quarter wavier: two pictures cannot tell that apart.
  expect(point(1, 0.8, null)).toMatchObject({ state: "good", pictures: { differs: false } });
  expect(point(1.3, 0.8, null)).toMatchObject({ state: "look", pictures: { differs: true } });
  expect(point(0.8, 1.3, null)).toMatchObject({ state: "look" });
  expect(point(1.6, 0.8, null)).toMatchObject({ state: "against" });
  expect(point(0.8, 0.8, 4.5)).toMatchObject({ state: "against" });
  expect(point(1.6, 0.8, 3)).toMatchObject({ state: "against", part: 3, beside: 3 });
  // Show flat is held against glass, not against what hangs beside it.
  expect(point(1.6, 0.8, 1, "flat")).toMatchObject({ state: "good", pictures: null });
});

test("a fault that would be rejected keeps it here, one that was mended does not", () => {
  const fault = (kind: "peeling" | "dustInBase") => (l: Ledger) => {
    looked(l);
    l.add("defect", { kind, at: { x_m: 0.5, y_m: 0.4 }, length_m: null, width_m: null, height_m: null, measured: false });
  };
  expect(out(fault("peeling")).verdict).toBe("stays");
  expect(stateOf(out(fault("dustInBase")), "faults")).toBe("look");
});

test("nobody's verdict is better for a further fault, whatever was noted", () => {
  const rank = { goes: 0, look: 1, "not known": 2, stays: 3 };
  fc.assert(
    fc.property(fc.constantFrom(...DEFECT_IDS), fc.constantFrom(...FINISH_KEYS), fc.integer({ min: 1, max: 20 }), (kind, finish, count) => {
      const worse = out(
        (l) => {
          looked(l);
          l.add("defect", { kind, count, at: { x_m: 0.5, y_m: 0.4 }, length_m: 0.05, width_m: 0.01, height_m: 60e-6, measured: true });
        },
        { finish, targetGloss_GU: finish === "matte" ? 91 : null },
      );
      const before = out(looked, { finish, targetGloss_GU: finish === "matte" ? 91 : null });
      expect(rank[worse.verdict]).toBeGreaterThanOrEqual(rank[before.verdict]);
    }),
    { numRuns: 25 },
  );
});

describe("the neighbour", () => {
  const seen = (over: object) => ({ name: "Wing", readings: [], rating: null, gloss60_GU: null, ...over });
  const of = (add: (l: Ledger) => unknown) => {
    const l = testLedger({ places });
    add(l);
    return neighbourOf(accountPanel(brief, TEST_SHEET, l.entries));
  };
  test("nobody looked: none; the newest of a rating and the neighbour's own counts; films are the mean of the readings", () => {
    expect(of(() => undefined)).toBeNull();
    const both = (l: Ledger) => {
      l.add(
        "neighbour",
        seen({ rating: 2.5, readings: [110, 118].map((um) => ({ thickness_m: um * 1e-6, entered: String(um), unit: "µm" })) }),
      );
      l.add("texture", { role: "target", rating: 3.5, place: "" });
    };
    expect(of(both)!.rating).toBe(3.5);
    expect(of(both)!.film_m).toBeCloseTo(114e-6, 12);
    const again = (l: Ledger) => {
      both(l);
      l.add("neighbour", seen({ rating: 2, gloss60_GU: 93 }));
    };
    expect(of(again)).toMatchObject({ name: "Wing", rating: 2, gloss60_GU: 93 });
    expect(of(again)!.film_m).toBeCloseTo(114e-6, 12);
  });
  test("what it is matched to is its texture: the options and the verdict ask the same one", () => {
    const g = out((l) => {
      looked(l);
      l.add("neighbour", seen({ rating: 1.5 }));
    });
    expect(g.points.find((p) => p.what === "texture")).toMatchObject({ part: 3, beside: 1.5, state: "against" });
  });
});

test("what was only sprayed is good by its coats or its total, and says so; worked on, the floor has to hold in doubt as well", () => {
  const film = (substrate: "plastic" | "refinish", { hand = 0.27, work = false } = {}) => {
    const l = testLedger({ places });
    l.coat(1, { handSpeed_m_s: hand });
    l.coat(2, { handSpeed_m_s: hand });
    if (substrate === "refinish")
      l.read(
        "after",
        places.map(() => 165),
      );
    if (work) l.add("flatten", { grit: 1500, by: "hand", removal_m: 1e-6, u_m: 0.2e-6, from: "told" });
    const state = accountPanel({ ...brief, substrate }, TEST_SHEET, l.entries);
    const asked = { finish: "match" as const, targetGloss_GU: null, floor_m: 35e-6, cured: { share: 1, left_s: 0 } };
    const point = releaseCheck({ brief: { ...brief, substrate }, state, ...asked }).points.find((p) => p.what === "film")!;
    return point.what === "film" ? [point.state, point.asSprayed] : null;
  };
  for (const substrate of ["plastic", "refinish"] as const) {
    expect(film(substrate)).toEqual(["good", true]);
    expect(film(substrate, { work: true })).toEqual(["look", false]);
  }
  expect(film("plastic", { hand: 0.5 })![0]).not.toBe("good");
});
