import fc from "fast-check";
import { type Half, HALVES, halfOf, inRegion } from "#core/kernel/geometry/region";
import { panelShape, suggestSpots } from "#core/kernel/geometry/shapes";
import { regionOfPlan } from "#core/panel/builds";
import { derivePanel } from "#core/panel/derive-panel";
import type { BodyInputOf } from "#core/record/bodies";
import { PANEL_PARTS, type PanelPart } from "#core/record/kinds";
import { TEST_SHEET, coatedLedger, typedFilm } from "#core/panel/testing/test-ledger";
import { type PanelState, accountPanel } from "./account";
import { FilmJudge } from "./film-judge";
import { filmFacts } from "./film-question";
import { weighOptions } from "./option-case";
import { DEFAULT_RATES } from "./option-figures";
import { openFaults } from "./open-faults";
import { judgeOf, judgedPlan, planBody, planFor } from "./plan-for";
import { zonePlan } from "./zone-plan";
import type { ZoneChoice } from "./zone-setting";

const um = (x: number) => x * 1e-6;
const shape = panelShape("door", { width_m: 1.1, height_m: 0.9 });
const brief = { shape, substrate: "refinish" as const, tilt_rad: Math.PI / 2, coatsPlanned: 2 };
const places = suggestSpots(shape.outline, 8);
const UNDER = [92, 90, 94, 91, 93, 90, 92, 91];

const NOT_SIZED = { length_m: null, width_m: null, height_m: null, measured: false } as const;
const area = (x0: number, y0: number, x1: number, y1: number) => ({
  as: "area" as const,
  at: [
    { x_m: x0, y_m: y0 },
    { x_m: x1, y_m: y0 },
    { x_m: x1, y_m: y1 },
    { x_m: x0, y_m: y1 },
  ],
});
const PEEL: BodyInputOf<"defect"> = {
  ...NOT_SIZED,
  kind: "peel",
  at: { x_m: 0.3, y_m: 0.7 },
  height_m: um(7),
  trace: area(0.1, 0.55, 0.9, 0.85),
};
const nibAt = (x_m: number, y_m: number): BodyInputOf<"defect"> => ({ ...NOT_SIZED, kind: "nib", at: { x_m, y_m }, count: 1 });
const runAt = (x_m: number, y_m: number): BodyInputOf<"defect"> => ({
  kind: "run",
  at: { x_m, y_m },
  length_m: 0.06,
  width_m: 0.01,
  height_m: um(60),
  measured: true,
});

const ledgerOf = (defects: readonly BodyInputOf<"defect">[], clear_um = 65) => coatedLedger({ places, under_um: UNDER, clear_um, defects });
const panel = (defects: readonly BodyInputOf<"defect">[], clear?: number): PanelState =>
  accountPanel(brief, TEST_SHEET, ledgerOf(defects, clear).entries);
const choice: ZoneChoice = {
  schoolId: "short",
  runSchool: "block",
  texture: { peakToValley_m: um(5), u_m: um(0.5) },
  tape_m: 0.02,
  floor_m: um(35),
};
/** A plan as it is stored, and its steps done. */
function worked(l: ReturnType<typeof ledgerOf>, own: Partial<ZoneChoice>, steps = Infinity) {
  const asked = { ...choice, ...own };
  const { plan } = planFor(brief, accountPanel(brief, TEST_SHEET, l.entries), asked);
  const id = l.add("plan", planBody(asked, plan, { verdict: "caution", cutChance: null, thinChance: null, inferred: false }));
  plan.steps.slice(0, steps).forEach((s, index) => {
    l.add("step", { planId: id, index, name: s.name, removal_m: s.removal_m, u_m: s.u_m, note: "", zone: s.zone });
  });
  return { plan, state: accountPanel(brief, TEST_SHEET, l.entries) };
}

test("film comes off only in the part that is levelled; what lies elsewhere keeps every micrometre", () => {
  for (const part of Object.keys(HALVES) as Half[]) {
    const before = panel([]);
    const { plan, state } = worked(ledgerOf([]), { part });
    const region = regionOfPlan({ part: plan.part });
    const taken = state.spots.map((s) => s.latest!.since.taken_m);
    before.spots.forEach(({ at }, i) => {
      if (inRegion(at, region)) expect(taken[i]).toBeCloseTo(plan.total.removal_m, 12);
      else expect(taken[i]).toBe(0);
    });
    expect(plan.part!.share).toBeGreaterThan(0.3);
    expect(plan.part!.share).toBeLessThan(0.7);
    // On the mean of the panel its share of it is gone: by the coats' own account and by the judge's.
    expect(before.expectedClear!.clear_m - state.expectedClear!.clear_m).toBeCloseTo(plan.part!.share * plan.total.removal_m, 12);
    expect(before.film.mean!.clear_m - state.film.mean!.clear_m).toBeCloseTo(plan.part!.share * plan.total.removal_m, 7);
  }
});

test("at the border the film has a step: right beside it, on either side, it is what it was, or what was taken off less", () => {
  const before = panel([]);
  const { plan, state } = worked(ledgerOf([]), { part: "lower" });
  const at = (y: number) => Array.from({ length: 9 }, (_, i) => [0.2 + 0.08 * i, y] as const);
  const [was, is] = [judgeOf(brief, before)!, judgeOf(brief, state)!];
  const middle = plan.part!.outlines[0]![0]!.y_m;
  is.at(at(middle - 0.01)).forEach((c, i) => expect(c.clear_m).toBeCloseTo(was.at(at(middle - 0.01))[i]!.clear_m, 8));
  is.at(at(middle + 0.01)).forEach((c, i) => {
    expect(c.clear_m).toBeCloseTo(was.at(at(middle + 0.01))[i]!.clear_m - plan.total.removal_m, 8);
    expect(c.u_m).toBeGreaterThan(was.at(at(middle + 0.01))[i]!.u_m);
  });
});

test("what may still come off a half that was levelled is less by what came off, and nothing else of the panel's allowance has moved", () => {
  const state = worked(ledgerOf([]), { part: "lower" }).state;
  const [was, is] = [judgeOf(brief, panel([]))!, judgeOf(brief, state)!];
  const allow = (judge: typeof was, part: Half) =>
    judge.allowance({ rim_m: 0.02, region: halfOf(shape.outline, part), uRel: 0.15, floor_m: um(35) }).safe_m;
  expect(allow(is, "upper")).toBeCloseTo(allow(was, "upper"), 6);
  expect(allow(is, "lower")).toBeLessThan(allow(was, "lower") - 0.8 * state.plan!.body.removal_m);
});

test("read again after it, a levelled half is known by its own readings, the other half unmoved", () => {
  const l = ledgerOf([]);
  const { plan } = worked(l, { part: "lower" });
  const region = regionOfPlan({ part: plan.part });
  const left = 65 - 1e6 * plan.total.removal_m;
  places.forEach((p, i) => {
    if (!inRegion(p, region)) return;
    const v = UNDER[i]! + left - 2; // two more came off than was foretold
    l.add("reading", {
      phase: "recheck",
      spot: String(i + 1),
      at: { x_m: p[0], y_m: p[1] },
      gauge: "typed",
      readings: [0, 1, 2].map(() => typedFilm(v)),
    });
  });
  const state = accountPanel(brief, TEST_SHEET, l.entries);
  for (const s of state.spots) {
    const expected = inRegion(s.at, region) ? um(left - 2) : um(65);
    expect(Math.abs(s.clear!.clear_m - expected)).toBeLessThan(um(1.5));
  }
});

test("less of the panel is less work, less paper and never more danger of cutting through", () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...(Object.keys(HALVES) as Half[])),
      fc.integer({ min: 25, max: 70 }),
      fc.constantFrom("short", "long", "fine", "hand"),
      fc.constantFrom("left" as const, "hand" as const),
      (part, clear, schoolId, edges) => {
        const state = panel([], clear);
        const judge = new FilmJudge(filmFacts(brief, state), { hypotheses: state.film.hypotheses, draws: 200 });
        const whole = planFor(brief, state, { ...choice, schoolId, edges }, judge);
        const half = planFor(brief, state, { ...choice, schoolId, edges, part }, judge);
        expect(half.plan.minutes).toBeLessThan(whole.plan.minutes);
        expect(half.plan.total).toEqual(whole.plan.total);
        expect(half.plan.zones.find((z) => z.kind === "flat")!.area_m2).toBeLessThan(
          whole.plan.zones.find((z) => z.kind === "flat")!.area_m2,
        );
        expect(judge.risk(half.assess.work).cutChance).toBeLessThanOrEqual(judge.risk(whole.assess.work).cutChance);
      },
    ),
    { numRuns: 8 },
  );
});

test("two halves one after the other come to the whole panel", () => {
  const l = ledgerOf([]);
  worked(l, { part: "upper" });
  const { state } = worked(l, { part: "lower" });
  const { state: once } = worked(ledgerOf([]), {});
  state.spots.forEach((s, i) => expect(s.latest!.since.taken_m).toBeCloseTo(once.spots[i]!.latest!.since.taken_m, 12));
  expect(state.expectedClear!.clear_m).toBeCloseTo(once.expectedClear!.clear_m, 7);
});

test("a nib and a run outside the part are taken off at their own places, from paper to polish, before and after the panel's ladder", () => {
  const { plan } = planFor(brief, panel([nibAt(0.5, 0.2), nibAt(0.5, 0.75), runAt(0.8, 0.25)]), { ...choice, part: "lower" });
  const at = (s: (typeof plan.steps)[number]) => s.at.map((p) => p.y_m);
  const elsewhere = plan.steps.filter((s) => s.zone !== "panel" && s.zone !== "hand" && at(s).every((y) => y < 0.45));
  const here = plan.steps.filter((s) => (s.zone === "spot" || s.zone === "run") && at(s).every((y) => y > 0.45));
  expect(here.length).toBeGreaterThan(0);
  expect(elsewhere.some((s) => s.zone === "run")).toBe(true);
  // Spots elsewhere end in the finest polish, after which nothing is sanded.
  const last = elsewhere.at(-1)!;
  expect(last.use).toEqual({ polish: "polish" });
  expect(plan.steps.indexOf(last)).toBe(plan.steps.length - 1);
  const firstPolish = plan.steps.findIndex((s) => s.use && "polish" in s.use);
  expect(plan.steps.slice(firstPolish).every((s) => s.use && "polish" in s.use)).toBe(true);
  expect(plan.zones.filter((z) => z.elsewhere).map((z) => z.kind)).toEqual(["run", "spot"]);
  expect(plan.unproved).toEqual([]);
});

test("the removal at a place elsewhere is its own alone; inside, the panel's comes on top", () => {
  const state = panel([nibAt(0.5, 0.2), nibAt(0.5, 0.75)]);
  const judge = judgeOf(brief, state)!;
  const { assess } = planFor(brief, state, { ...choice, part: "lower" }, judge);
  const risks = judge.risk({ ...assess.work, floor_m: um(55) });
  const [outside, inside] = assess.work.local.map((t, i) => ({ y: t.at[1], risk: risks.local[i]! })).sort((a, b) => a.y - b.y);
  expect(outside!.risk.thin).toBeLessThan(inside!.risk.thin);
});

test("a part without any marked area says so, and is no plan", () => {
  const state = panel([nibAt(0.5, 0.2)]);
  const nothing = judgedPlan({ brief, state, choice: { ...choice, part: "marked" } });
  expect(nothing.plan).toMatchObject({ problem: "nothing marked", steps: [] });
  expect(nothing.assessment.reason).toBeNull();
  expect(planFor(brief, panel([PEEL]), { ...choice, part: "marked" }).plan.problem).toBeNull();
  // A school for places alone knows no part.
  expect(planFor(brief, state, { ...choice, schoolId: "spot", part: "marked" }).plan).toMatchObject({ problem: null, part: null });
});

test("peel drawn on the lower third is levelled there, not over the panel; peel all over is not", () => {
  const options = (defects: readonly BodyInputOf<"defect">[]) =>
    weighOptions(
      {
        brief,
        state: panel(defects),
        finish: "match",
        floor_m: um(35),
        schoolId: "short",
        cured: 1,
        rates: DEFAULT_RATES,
      },
      { draws: 200 },
    ).answer!.decision;
  const there = options([PEEL]);
  expect(there.best?.kind).toBe("part");
  const part = there.options.find((o) => o.kind === "part")!;
  const full = there.options.find((o) => o.kind === "full")!;
  expect(part.minutes).toBeLessThan(full.minutes);
  expect(part.cost).toBeLessThan(full.cost);
  // As deep elsewhere, though not drawn: that part alone does not do.
  const everywhere = options([PEEL, { ...PEEL, trace: null, at: { x_m: 0.5, y_m: 0.2 } }]);
  expect(everywhere.best?.kind).not.toBe("part");
  expect(options([{ ...PEEL, trace: null }]).options.some((o) => o.kind === "part")).toBe(false);
});

test("one run, nibs and peel in one part: all three in one plan, each where it is", () => {
  const state = panel([PEEL, nibAt(0.5, 0.2), runAt(0.6, 0.7)]);
  const { decision } = weighOptions(
    { brief, state, finish: "match", floor_m: um(35), schoolId: "short", cured: 1, rates: DEFAULT_RATES },
    { draws: 200 },
  ).answer!;
  expect(decision.best).toMatchObject({ kind: "part" });
  expect(decision.best!.runSchool).not.toBeNull();
});

test("a fault is mended by a part plan only where that went", () => {
  const DIE: BodyInputOf<"defect"> = { ...NOT_SIZED, kind: "dieBack", at: { x_m: 0.5, y_m: 0.7 }, trace: area(0.3, 0.6, 0.6, 0.8) };
  const UP: BodyInputOf<"defect"> = { ...NOT_SIZED, kind: "dieBack", at: { x_m: 0.5, y_m: 0.2 }, trace: area(0.3, 0.1, 0.6, 0.3) };
  const { state } = worked(ledgerOf([DIE, UP]), { part: "lower" });
  expect(openFaults(state)).toMatchObject([{ kind: "dieBack", count: 1, marked: true }]);
  const { state: all } = worked(ledgerOf([DIE, UP]), {});
  expect(openFaults(all)).toEqual([]);
});

test("craters are filled first, then levelled where they are; done, they are mended", () => {
  const CRATERS: BodyInputOf<"defect"> = { ...NOT_SIZED, kind: "crater", at: { x_m: 0.5, y_m: 0.3 }, count: 3 };
  const state = panel([CRATERS]);
  // Without the drop there is nothing that a school for spots could do.
  expect(planFor(brief, state, { ...choice, schoolId: "spot" }).plan.problem).toBe("no place");
  const { plan, state: done } = worked(ledgerOf([CRATERS]), { schoolId: "spot", fill: true });
  expect(plan.problem).toBeNull();
  expect(plan.steps[0]).toMatchObject({ name: "Drop of clear", use: null, removal_m: 0, zone: "spot", at: [{ x_m: 0.5, y_m: 0.3 }] });
  expect(plan.steps[1]!.use).toEqual({ grit: "P2000", backing: "medium", tool: "pad" });
  expect(openFaults(state)).toMatchObject([{ kind: "crater" }]);
  expect(openFaults(done)).toEqual([]);
  const { decision } = weighOptions(
    { brief, state, finish: "match", floor_m: um(35), schoolId: "short", cured: 1, rates: DEFAULT_RATES },
    { draws: 200 },
  ).answer!;
  expect(decision.options.find((o) => o.kind === "dropFill")!.minutes).toBeCloseTo(plan.minutes, 9);
});

test("a drop that is in but not levelled is still to do; levelled, it is done, whatever else the plan still holds", () => {
  const CRATERS: BodyInputOf<"defect"> = { ...NOT_SIZED, kind: "crater", at: { x_m: 0.5, y_m: 0.3 }, count: 3 };
  const after = (steps: number) => worked(ledgerOf([CRATERS, nibAt(0.7, 0.3)]), { schoolId: "spot", fill: true }, steps).state;
  const fills = (state: PanelState) =>
    planFor(brief, state, { ...choice, schoolId: "spot", fill: true }).plan.steps.filter((s) => !s.use).length;
  expect([openFaults(after(1)).length, fills(after(1))]).toEqual([1, 1]);
  expect([openFaults(after(2)).length, fills(after(2))]).toEqual([0, 0]);
  // A nib taken off beside a crater fills nothing.
  const { state: beside } = worked(ledgerOf([CRATERS, nibAt(0.505, 0.3)]), { schoolId: "spot" });
  expect(openFaults(beside)).toMatchObject([{ kind: "crater" }]);
});

test("whatever is marked and chosen, no part plan is absurd", () => {
  const parts = Object.keys(PANEL_PARTS) as PanelPart[];
  fc.assert(
    fc.property(
      fc.array(
        fc.tuple(fc.constantFrom("nib", "run", "peel", "crater"), fc.integer({ min: 15, max: 95 }), fc.integer({ min: 15, max: 75 })),
        {
          maxLength: 4,
        },
      ),
      fc.constantFrom(...parts),
      fc.constantFrom("short", "long", "two-papers", "fine", "hand"),
      fc.boolean(),
      (marks, part, schoolId, fill) => {
        const defects = marks.map(([kind, x, y]): BodyInputOf<"defect"> => {
          const [x_m, y_m] = [x / 100, y / 100];
          if (kind === "run") return runAt(x_m, y_m);
          if (kind === "peel") return { ...PEEL, at: { x_m, y_m }, trace: area(x_m - 0.1, y_m - 0.1, x_m + 0.1, y_m + 0.1) };
          return { ...nibAt(x_m, y_m), kind: kind === "crater" ? "crater" : "nib" };
        });
        const facts = derivePanel(brief, TEST_SHEET, ledgerOf(defects).entries);
        const plan = zonePlan(brief, facts, { ...choice, schoolId, part, fill }, null);
        expect(plan.problem === "nothing marked").toBe(part === "marked" && !marks.some(([kind]) => kind === "peel"));
        if (plan.problem) return;
        // Papers, then polishes, whatever is worked where.
        const firstPolish = plan.steps.findIndex((s) => s.use && "polish" in s.use);
        expect(plan.steps.slice(firstPolish).every((s) => s.use && "polish" in s.use)).toBe(true);
        expect(plan.unproved).toEqual([]);
        for (const s of plan.steps) {
          expect(s.minutes).toBeGreaterThan(0);
          if (s.zone === "spot" || s.zone === "run") expect(s.at.length).toBeGreaterThan(0);
        }
        // Everything marked to be taken off is somewhere in it.
        const at = new Set(plan.steps.flatMap((s) => s.at.map((p) => `${p.x_m} ${p.y_m}`)));
        for (const [i, [kind]] of marks.entries())
          if (kind === "nib" || kind === "run" || (kind === "crater" && fill))
            expect(at.has(`${defects[i]!.at.x_m} ${defects[i]!.at.y_m}`)).toBe(true);
      },
    ),
    { numRuns: 150 },
  );
});
