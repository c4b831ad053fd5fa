import { readFileSync } from "node:fs";
import fc from "fast-check";
import { type AssessInput, assess } from "#core/judge/assess";
import { cellRisk, edgeMultiplier } from "#core/judge/cell-risk";
import { chanceAt, riskOf } from "#core/judge/chance-at";
import type { FilmFacts } from "#core/judge/film-facts";
import { FilmJudge, type LocalTask, type PanelWork } from "#core/judge/film-judge";
import { pictureCells, stripShares, workedShare } from "#core/judge/judge-cells";
import { VERDICT_LIMITS, verdictOf } from "#core/judge/limits";
import { mapPanel } from "#core/judge/panel-map";
import type { Point } from "#core/kernel/geometry/geometry";
import { panelShape, suggestSpots } from "#core/kernel/geometry/shapes";
import { DEFAULT_FIELD, type FilmObservation } from "#core/models/film/film-field";

interface Case {
  id: string;
  input: { poly: Point[]; obs: [number, number, "a" | "b", number, number][] };
  expected: { Pcut: number; Puv: number; verdict: string };
}
const { cases } = JSON.parse(readFileSync("core/compute/checks/film-checks.json", "utf8")) as { cases: Case[] };
const find = (id: string) => cases.find((c) => c.id === id)!;
const map = find("map.fixed.n6").input;
const um = (x: number) => x * 1e-6;
const observations = map.obs.map(([x, y, l, v, n]): FilmObservation => ({
  at: [x, y],
  layer: l === "a" ? "after" : "before",
  total_m: um(v),
  n,
}));
const { length_m, sdClear_m, sdUnder_m, micro_m } = DEFAULT_FIELD;
/** The reference's risk cases hold the unknowns fixed and know no doubt beside the field's own. */
const film: FilmFacts = {
  outline: map.poly,
  unknowns: { length_m, sdClear_m, sdUnder_m, micro_m },
  observations,
  history: { weights: { factory: 0.8, refinish: 0.2 } },
  foil: true,
};
const panelWork: PanelWork = { removal_m: um(8.8875), u_m: um(1.3177957), rim_m: 0.02 };
const input: AssessInput = { film, work: { panel: panelWork, local: [], floor_m: um(35) } };
const shifted = (by: number): FilmFacts => ({
  ...film,
  observations: observations.map((o) => (o.layer === "after" ? { ...o, total_m: o.total_m + um(by) } : o)),
});
/** Fewer draws where a test is after the direction, not the third figure. */
const QUICK = 400;

test("six spots before and after: chances and verdict agree with the reference program", () => {
  const { expected } = find("risk.n6");
  const a = assess({ ...input, remedies: false });
  expect(Math.abs(a.thinChance - expected.Puv)).toBeLessThan(0.03);
  expect(Math.abs(a.cutChance - expected.Pcut)).toBeLessThan(0.005);
  expect(a.verdict).toBe(expected.verdict);
  expect(a.inferred).toBe(false);
});

test("where a few readings as expected would make it safe, they are asked for, with their places", () => {
  const a = assess({ ...input, film: shifted(5), draws: QUICK });
  expect(a.thinChance).toBeGreaterThan(0.05);
  const readings = a.wouldHelp.find((r) => r.what === "readings")!;
  expect(readings.at).toHaveLength(readings.count);
});

test("plenty of film is safe, hardly any is a stop that more readings do not mend", () => {
  expect(assess({ ...input, film: shifted(25), draws: QUICK })).toMatchObject({ verdict: "safe", wouldHelp: [] });
  const thin = assess({ ...input, film: shifted(-30), draws: QUICK });
  expect(thin.verdict).toBe("stop");
  expect(thin.wouldHelp).toEqual([]);
  expect(thin.largestSafeRemoval_m).toBeLessThan(0);
});

test("a foil check, or a removal measured here, that would turn a stop into safe is named", () => {
  const doubted = { ...shifted(7), foil: false };
  const measured = { panel: { ...panelWork, removal_m: um(1), u_m: um(0.1) }, local: [], floor_m: um(35) };
  const a = assess({ film: doubted, work: { ...input.work, measured: [{ places: 3, work: measured }] }, draws: QUICK });
  expect(a.verdict).not.toBe("safe");
  expect(a.wouldHelp.map((r) => r.what)).toEqual(expect.arrayContaining(["foil", "mark"]));
});

test("fewer than three spots after clear: no verdict, with the reason; the film there is told all the same", () => {
  const two = { ...film, observations: observations.slice(0, 4) };
  const a = assess({ ...input, film: two });
  expect(a.verdict).toBe("none");
  expect(a.reason).toContain("2 of at least 3 spots");
  expect(new FilmJudge(two).at([observations[0]!.at])[0]!.clear_m).toBeGreaterThan(0);
  expect(() => new FilmJudge(two).risk(input.work)).toThrow("2 of at least 3 spots");
});

test("without before-readings it is inferred and riskier; coats of one's own replace the usual stack's clear", () => {
  const after = observations.filter((o) => o.layer === "after");
  const low = after.map((o) => ({ ...o, total_m: o.total_m - um(28) }));
  const guessed = assess({ ...input, film: { ...film, observations: low }, draws: QUICK, remedies: false });
  expect(guessed.inferred).toBe(true);
  expect(guessed.thinChance).toBeGreaterThan(assess({ ...input, draws: QUICK, remedies: false }).thinChance);
  const sprayed = { weights: { factory: 0, refinish: 1 }, sprayed: { clear_m: um(60), u_m: um(4) } };
  const judge = new FilmJudge({ ...film, observations: after, history: sprayed });
  expect(Math.abs(judge.mean().clear_m - um(60))).toBeLessThan(um(6));
});

describe("laws of the judge", () => {
  const judge = new FilmJudge(shifted(12));
  const risk = (panel: Partial<PanelWork>, floor_um = 35) =>
    judge.risk({ panel: { ...panelWork, ...panel }, local: [], floor_m: um(floor_um) });

  test("the chance rises with removal and with the floor", () => {
    const removals = [2, 8, 14, 20].map((v) => risk({ removal_m: um(v), u_m: um(0.15 * v) }).thinChance);
    const floors = [20, 30, 40, 50].map((v) => risk({}, v).thinChance);
    for (const list of [removals, floors]) expect([...list].sort((a, b) => a - b)).toEqual(list);
  });

  test("asked at its own safe removal, the judge says safe; a little more, and it does not; over panels, doubts, rims and strips", () => {
    fc.assert(
      fc.property(
        fc.record({
          shift: fc.integer({ min: -10, max: 60 }),
          uRel: fc.double({ min: 0, max: 0.4, noNaN: true }),
          rim_m: fc.constantFrom(0, 0.02, 0.05),
          share: fc.constantFrom(null, 0, 0.5),
          foil: fc.boolean(),
          floor_um: fc.integer({ min: 20, max: 45 }),
        }),
        ({ shift, uRel, rim_m, share, foil, floor_um }) => {
          const own = new FilmJudge({ ...shifted(shift), foil }, { draws: QUICK });
          const byHand = share === null ? undefined : { edge: { within_m: 0.06, share } };
          const floor_m = um(floor_um);
          const ask = { rim_m, byHand, floor_m };
          const allowance = own.allowance({ ...ask, uRel });
          const { safe_m } = allowance;
          // Never more than what is there over the floor, at the thinnest worked place or anywhere on average.
          expect(safe_m).toBeLessThanOrEqual(own.mean().clear_m - floor_m);
          if (safe_m <= 0) return;
          const at = (removal_m: number) => own.risk({ panel: { ...ask, removal_m, u_m: uRel * removal_m }, local: [], floor_m });
          expect(at(safe_m).verdict).toBe("safe");
          expect(at(safe_m).thinChance).toBeLessThanOrEqual(VERDICT_LIMITS.safe.thin);
          expect(at(safe_m).cutChance).toBeLessThanOrEqual(VERDICT_LIMITS.safe.cut);
          expect(at(1.3 * safe_m + um(1)).verdict).not.toBe("safe");
          // The slider's figures are the plan's own.
          for (const removal_m of [0.5 * safe_m, safe_m, 2 * safe_m])
            expect(riskOf(allowance, removal_m)).toMatchObject({
              thinChance: at(removal_m).thinChance,
              cutChance: at(removal_m).cutChance,
            });
        },
      ),
      { numRuns: 15 },
    );
  });

  test("the map of a removal is the plan of that removal", () => {
    const { map: m } = mapPanel({ film: judge.film, removal_m: um(9), uRel: 0.15, rim_m: 0.02, floor_m: um(35) });
    for (const removal of [3, 9, 15]) {
      const plan = risk({ removal_m: um(removal), u_m: um(0.15 * removal) });
      expect(riskOf(m!, um(removal))).toEqual({ verdict: plan.verdict, cutChance: plan.cutChance, thinChance: plan.thinChance });
    }
    expect(m!.thinnest).toEqual(judge.thinnest());
    expect(m!.mean).toEqual(judge.mean());
  });

  test("spot work is judged at its spots: a thin edge elsewhere says nothing of two nibs in the middle (once: stop, 1 in 45)", () => {
    const nibs: LocalTask[] = [
      [0.7, 0.6],
      [0.6, 0.5],
    ].map(([x, y]) => ({ at: [x!, y!], removal_m: um(6), u_m: um(1) }));
    const spots = judge.risk({ panel: null, local: nibs, floor_m: um(35) });
    const whole = risk({ removal_m: um(6), u_m: um(1), rim_m: 0 });
    expect(spots.thinChance).toBeLessThan(whole.thinChance);
    expect(spots.local).toHaveLength(2);
    for (const one of spots.local) expect(one.thin).toBeLessThanOrEqual(spots.thinChance + 1e-9);
    // One place alone is what the chance at one place says.
    const [there] = judge.at([nibs[0]!.at]);
    const alone = judge.risk({ panel: null, local: [nibs[0]!], floor_m: there!.clear_m - um(6) });
    expect(Math.abs(alone.thinChance - 0.5)).toBeLessThan(0.05);
    const byHand = cellRisk({ clear_m: there!.clear_m, u_clear_m: there!.u_m, removal_m: um(6), u_removal_m: um(1), floor_m: um(50) });
    const drawn = judge.risk({ panel: null, local: [nibs[0]!], floor_m: um(50) }).thinChance;
    expect(Math.abs(drawn - byHand)).toBeLessThan(0.04);
  });

  test("what has been taken off at a place before counts there, its doubt too; a tool that may slip adds its chance", () => {
    const nib: LocalTask = { at: [0.7, 0.6], removal_m: um(5), u_m: um(1) };
    const cut = (task: LocalTask) => judge.risk({ panel: null, local: [task], floor_m: um(35) }).local[0]!;
    expect(cut({ ...nib, done_m: um(25), uDone_m: um(3) }).thin).toBeGreaterThan(cut(nib).thin);
    const slips = cut({ ...nib, gouge: { chance: 0.03, depth_m: um(200), u_m: um(8) } });
    expect(slips.cut).toBeCloseTo(0.03 + 0.97 * cut(nib).cut, 3);
  });

  test("the same readings give the same answer, in whatever order they come", () => {
    const reversed = new FilmJudge({ ...judge.film, observations: [...judge.film.observations].reverse() });
    expect(reversed.risk(input.work).thinChance).toBeCloseTo(judge.risk(input.work).thinChance, 2);
    expect(new FilmJudge(judge.film).risk(input.work)).toEqual(judge.risk(input.work));
  });

  test("figures out of range are refused", () => {
    expect(() => risk({ removal_m: NaN })).toThrow(RangeError);
    expect(() => risk({}, NaN)).toThrow("floor_m");
    expect(() => judge.risk({ panel: null, local: [{ at: [0.5, 0.5], removal_m: -1, u_m: 0 }], floor_m: 0 })).toThrow("local[0].removal_m");
    expect(() => risk({ rim_m: 0.9 })).toThrow("rim_m must leave some panel");
    expect(() => new FilmJudge(film, { draws: 1.5 })).toThrow("draws");
  });
});

describe("cells", () => {
  const shape = panelShape("door", { width_m: 1.1, height_m: 0.9 });
  test("the least share of the strips a place lies in; a strip of share 0 is not worked", () => {
    const edge_m = Float64Array.of(0.005, 0.05, 0.05, 0.005);
    const line_m = Float64Array.of(0.5, 0.01, 0.5, 0.01);
    expect([...stripShares({ edge_m, line_m }, { edge: { within_m: 0.02, share: 0.6 }, line: { within_m: 0.015, share: 0.4 } })]).toEqual([
      0.6, 0.4, 1, 0.4,
    ]);
    expect(() => stripShares({ edge_m, line_m }, { edge: { within_m: 0.02, share: -1 } })).toThrow("byHand.edge.share");
    const picture = pictureCells(shape.outline, shape.bodyLines);
    const left = workedShare(picture, { rim_m: 0.02, byHand: { line: { within_m: 0.03, share: 0 } } });
    left.forEach((s, i) => expect(s > 0).toBe(picture.edge_m[i]! >= 0.02 && picture.line_m[i]! >= 0.03));
  });

  test("one place: more at the edge, half at its mean", () => {
    expect(edgeMultiplier(0)).toBe(1.5);
    expect(edgeMultiplier(1)).toBeCloseTo(1, 9);
    expect(cellRisk({ clear_m: um(50), u_clear_m: um(4), removal_m: um(15), u_removal_m: um(2), floor_m: um(35) })).toBeCloseTo(0.5, 12);
    expect(() => verdictOf({ cut: 1.2, thin: 0 })).toThrow("cut");
  });

  test("the share of draws below a removal: ends, order, nothing drawn", () => {
    const sorted = Float64Array.from([1, 2, 2, 4].map(um));
    expect([0, 1, 1.5, 2, 3, 5].map((r) => chanceAt(sorted, um(r)))).toEqual([0, 0, 0.25, 0.25, 0.75, 1]);
    expect(chanceAt(new Float64Array(0), 0)).toBeNaN();
  });
});

test("verdict limits", () => {
  expect([
    verdictOf({ cut: 0.005, thin: 0.05 }),
    verdictOf({ cut: 0.006, thin: 0.05 }),
    verdictOf({ cut: 0.031, thin: 0 }),
    verdictOf({ cut: 0, thin: 0.26 }),
  ]).toEqual(["safe", "caution", "stop", "stop"]);
});

test("laws hold on a panel of the trade too: twelve spots on a door, its safe removal is safe and leaves the floor on average", () => {
  const shape = panelShape("door", { width_m: 1.1, height_m: 0.9 });
  const places = suggestSpots(shape.outline, 12, { bodyLines: shape.bodyLines });
  const read = places.flatMap((at, i): FilmObservation[] => [
    { at, layer: "before", total_m: um(90 + (i % 3)), n: 3 },
    { at, layer: "after", total_m: um(190 + (i % 4)), n: 3 },
  ]);
  const door = new FilmJudge({ ...film, outline: shape.outline, bodyLines: shape.bodyLines, observations: read });
  const { safe_m } = door.allowance({ rim_m: 0.02, uRel: 0.2, floor_m: um(38) });
  expect(safe_m).toBeGreaterThan(um(15));
  expect(safe_m).toBeLessThan(door.thinnest().clear_m - um(38));
  expect(door.risk({ panel: { removal_m: safe_m, u_m: 0.2 * safe_m, rim_m: 0.02 }, local: [], floor_m: um(38) }).verdict).toBe("safe");
});

test("a plan at single places is judged by those: the place it names is one of them, and the most that may come off is safe there", () => {
  // Once it named the thinnest place of the panel, where nobody works.
  const thinnest = new FilmJudge(film).thinnest().at;
  const at = observations
    .map((o) => o.at)
    .sort((a, b) => Math.hypot(b[0] - thinnest[0], b[1] - thinnest[1]) - Math.hypot(a[0] - thinnest[0], a[1] - thinnest[1]))[0]!;
  const local = [{ at, removal_m: um(12), u_m: um(2) }];
  const a = assess({ film, work: { panel: null, local, floor_m: um(35) }, remedies: false, draws: QUICK });
  expect(a.thinnest!.at).toEqual(at);
  const judge = new FilmJudge(film, { draws: QUICK });
  const risk = (removal_m: number) => judge.risk({ panel: null, local: [{ at, removal_m, u_m: removal_m / 6 }], floor_m: um(35) }).verdict;
  expect(a.largestSafeRemoval_m).toBeGreaterThan(0);
  expect(risk(a.largestSafeRemoval_m)).toBe("safe");
  expect(risk(a.largestSafeRemoval_m + um(0.5))).not.toBe("safe");
  expect(a.asItIs.thinChance).toBeLessThanOrEqual(a.thinChance);
});
