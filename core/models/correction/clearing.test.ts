import fc from "fast-check";
import { BACKING, GRAIN_M, type Backing, type Grit } from "#core/models/correction/abrasives";
import { MOST_PASSES, abrasiveKey, clearingPlan, finishLadder, onePass, skippedSteps, stepPrior } from "#core/models/correction/clearing";
import { removalAtMark, weighMeasured } from "#core/models/correction/measured-step";
import { learnRemovalFactor, learnSteps } from "#core/models/correction/learn-removal";
import { decideOptions, waitingOf } from "#core/judge/options";
import { planRemoval } from "#core/models/correction/removal-plan";
import { RUN_SCHOOLS, type RunSchool } from "#core/models/correction/run-work";
import { CORRECTION_SCHOOLS } from "#core/models/correction/schools";

const um = (x: number) => x * 1e-6;
const grits = Object.keys(GRAIN_M) as Grit[];
const backings = Object.keys(BACKING) as Backing[];

test.each(CORRECTION_SCHOOLS.map((s) => [s.name, s] as const))(
  "%s: no step leaves marks deeper than the next takes off",
  (_name, school) => {
    const { steps } = clearingPlan(
      school.steps.map((s) => s.use),
      { peakToValley_m: um(3), u_m: um(0.4) },
    );
    expect(skippedSteps(steps)).toEqual([]);
    steps.slice(1).forEach((s, i) => expect(s.clears_m).toBeGreaterThanOrEqual(steps[i]!.leaves_m - 1e-12));
  },
);

test("from every start grit and backing there is a ladder down to the polish that skips nothing", () => {
  for (const grit of grits)
    for (const backing of backings) {
      const { steps } = clearingPlan(finishLadder({ grit, backing }));
      expect({ grit, backing, skipped: skippedSteps(steps) }).toEqual({ grit, backing, skipped: [] });
      expect(steps.at(-1)!.leaves_m).toBeLessThan(um(0.1));
    }
});

test.each(Object.keys(RUN_SCHOOLS) as RunSchool[])("after the run school %s the finish clears its grit", (school) => {
  const { steps } = clearingPlan(finishLadder({ grit: RUN_SCHOOLS[school].grit, backing: "hard" }));
  expect(skippedSteps(steps)).toEqual([]);
});

test("a ladder that skips too far is found: P800 straight to P3000", () => {
  const { steps } = clearingPlan([{ grit: "P800", backing: "hard" }, { grit: "P3000", backing: "soft" }, { polish: "compound" }]);
  expect(skippedSteps(steps)).toEqual([1]);
  expect(steps[1]!.passes).toBeGreaterThan(MOST_PASSES);
});

test("where one pass clears it, the plan is the plain one; more passes take more and are less sure", () => {
  const plain = [{ grit: "P1500", backing: "medium" } as const, { grit: "P2000", backing: "medium" } as const];
  expect(clearingPlan(plain).total).toEqual(planRemoval(plain).total);
  const short = CORRECTION_SCHOOLS[0].steps.map((s) => s.use);
  const [cleared, once] = [clearingPlan(short).total, planRemoval(short).total];
  expect(cleared.removal_m).toBeGreaterThan(once.removal_m);
  expect(cleared.u_m).toBeGreaterThan(once.u_m);
  expect(() => clearingPlan(short, { peakToValley_m: -1, u_m: 0 })).toThrow(RangeError);
});

describe("a shop's own removal", () => {
  const pair = (measured: number) => ({ measured_m: um(measured), u_m: um(0.8), forecast_m: um(11), uForecast_m: um(1.9) });
  test("two panels say nothing yet; many pull the factor to what was measured, few only part of the way", () => {
    expect(learnRemovalFactor([pair(14), pair(14)])).toMatchObject({ enough: false, factor: 1, n: 2 });
    const three = learnRemovalFactor([pair(14), pair(14), pair(14)]);
    const many = learnRemovalFactor(Array.from({ length: 60 }, () => pair(14)));
    expect(three.factor).toBeGreaterThan(1.1);
    expect(three.factor).toBeLessThan(many.factor);
    expect(many.factor).toBeCloseTo(14 / 11, 2);
    expect(many.u_log).toBeLessThan(three.u_log);
    expect(() => learnRemovalFactor([{ ...pair(1), forecast_m: 0 }])).toThrow("forecast_m");
  });
  test("taken over, the plan takes that much and is surer of it; its steps still add up", () => {
    const steps = CORRECTION_SCHOOLS[0].steps.map((s) => s.use);
    const texture = { peakToValley_m: um(3), u_m: um(0.4) };
    const plain = clearingPlan(steps, texture);
    const own = clearingPlan(steps, texture, { whole: { factor: 1.2, u_log: 0.03 }, steps: {} });
    expect(own.total.removal_m).toBeCloseTo(1.2 * plain.total.removal_m, 12);
    expect(own.total.u_m).toBeLessThan(plain.total.u_m);
    expect(own.steps.reduce((a, s) => a + s.removal_m, 0)).toBeCloseTo(own.total.removal_m, 12);
    expect(Math.hypot(...own.steps.map((s) => s.u_m))).toBeCloseTo(own.total.u_m, 12);
    expect(() => clearingPlan(steps, texture, { whole: { factor: 0, u_log: 0 }, steps: {} })).toThrow("shop.factor");
  });
});

describe("steps measured at a mark", () => {
  const key = "P1500 medium machine";
  const pair = (measured: number, o: { texture?: number; passes?: number } = {}) => ({
    key,
    measured_m: um(measured),
    u_m: um(1.2),
    texture_m: um(o.texture ?? 0),
    passes: o.passes ?? 1,
  });
  test("texture is taken out and passes are shared before one pass is learnt; the default keeps its weight while pairs are few", () => {
    const prior = stepPrior(key);
    const [plain] = learnSteps([pair(5), pair(5), pair(5)], stepPrior);
    const [textured] = learnSteps([pair(8, { texture: 3 }), pair(8, { texture: 3 }), pair(8, { texture: 3 })], stepPrior);
    expect(textured!.mean_m).toBeCloseTo(plain!.mean_m, 12);
    expect(plain!.mean_m).toBeGreaterThan(prior.mean_m);
    expect(plain!.mean_m).toBeLessThan(um(5));
    expect(learnSteps([pair(10, { passes: 2 })], stepPrior)[0]!.mean_m).toBeGreaterThan(learnSteps([pair(5)], stepPrior)[0]!.mean_m); // surer a pass
    expect(plain).toMatchObject({ n: 3, enough: true, prior });
    expect(learnSteps([pair(5)], stepPrior)[0]!.enough).toBe(false);
    const [many] = learnSteps(
      Array.from({ length: 200 }, () => pair(5)),
      stepPrior,
    );
    expect(many!.mean_m).toBeCloseTo(um(5), 7);
  });
  test("grits, backings and tools are learnt apart; a key that names nothing is refused", () => {
    const learnt = learnSteps([pair(5), { ...pair(1), key: "compound" }, { ...pair(2), key: "P3000 soft machine" }], stepPrior);
    expect(learnt.map((l) => l.key)).toEqual(["P1500 medium machine", "P3000 soft machine", "compound"]);
    expect(abrasiveKey({ grit: "P2000", backing: "hard", tool: "pad" })).toBe("P2000 hard pad");
    expect(() => learnSteps([{ ...pair(1), key: "P9 medium machine" }], stepPrior)).toThrow("must name grit");
    expect(() => learnSteps([pair(1, { passes: 0 })], stepPrior)).toThrow("passes");
  });
  test("taken over, the plan uses it for that step alone, and the whole-plan factor leaves that step be", () => {
    const steps = CORRECTION_SCHOOLS[0].steps.map((s) => s.use);
    const own = { [key]: { removal_m: um(4.5), u_m: um(0.4) } };
    const plain = clearingPlan(steps);
    const taken = clearingPlan(steps, undefined, { whole: null, steps: own });
    expect(taken.steps[0]).toMatchObject({ own: true, default_m: plain.steps[0]!.removal_m });
    expect(taken.steps[0]!.removal_m).toBeCloseTo(um(4.5), 12);
    expect(taken.steps.slice(1)).toEqual(plain.steps.slice(1));
    const both = clearingPlan(steps, undefined, { whole: { factor: 1.5, u_log: 0.05 }, steps: own });
    expect(both.steps[0]).toEqual(taken.steps[0]);
    expect(both.steps[2]!.removal_m).toBeCloseTo(1.5 * plain.steps[2]!.removal_m, 12);
    expect(onePass(steps[0]!, { whole: { factor: 1.5, u_log: 0.05 }, steps: own }).removal_m).toBeCloseTo(um(4.5), 12);
  });
  test("a mark read before and after weighs with the forecast by their doubts, and may say less than nothing came off", () => {
    const mark = removalAtMark([um(131), um(129)], [um(121), um(119)]);
    expect(mark.removal_m).toBeCloseTo(um(10), 12);
    expect(mark.u_m).toBeGreaterThan(um(1.5));
    const forecast = { removal_m: um(6), u_m: um(1.5) };
    const weighed = weighMeasured(forecast, mark);
    expect(weighed.removal_m).toBeGreaterThan(um(6));
    expect(weighed.removal_m).toBeLessThan(um(10));
    expect(weighed.u_m).toBeLessThan(forecast.u_m);
    expect(removalAtMark([um(100)], [um(102)]).removal_m).toBeCloseTo(um(-2), 12);
    expect(weighMeasured({ removal_m: 0, u_m: 0 }, mark)).toEqual({ removal_m: 0, u_m: 0 });
    expect(() => removalAtMark([], [1])).toThrow(RangeError);
  });
});

describe("the choice of an option", () => {
  const usual = {
    area_m2: 1.1,
    clear_m: um(55),
    u_clear_m: um(4),
    total_m: um(140),
    peakToValley_m: um(3),
    wanted_m: um(3),
    nibs: 0,
    run: null,
    matte: false,
    cured: 1,
  };
  const best = (more: Partial<Parameters<typeof decideOptions>[0]>) => decideOptions({ ...usual, ...more }).best?.kind;
  test("nibs: none leave, a few one by one, very many the whole panel", () => {
    expect([0, 1, 3, 12, 25].map((nibs) => best({ nibs }))).toEqual(["leave", "spot", "spot", "spot", "spot"]);
    expect([32, 60].map((nibs) => best({ nibs }))).toEqual(["full", "full"]);
  });
  test("peel of 9 µm: new base on hardly any clear, flow coat on thin clear, level and polish on plenty", () => {
    const peel = { peakToValley_m: um(9) };
    expect([12, 16].map((c) => best({ ...peel, clear_m: um(c) }))).toEqual(["rebase", "rebase"]);
    expect([20, 30, 40, 48].map((c) => best({ ...peel, clear_m: um(c) }))).toEqual(["flow", "flow", "flow", "flow"]);
    expect([50, 60].map((c) => best({ ...peel, clear_m: um(c) }))).toEqual(["full", "full"]);
  });
  test("measuring pays: at 52 µm known to 6 µm it may be levelled, to 8 µm it is re-cleared", () => {
    const peel = { peakToValley_m: um(9), clear_m: um(52) };
    expect([6, 8].map((sd) => best({ ...peel, u_clear_m: um(sd) }))).toEqual(["full", "flow"]);
  });
  test("a high run with thin clear wants a flow coat, a low one is left; matte: one nib is left, eight are refinished", () => {
    const run = (height: number) => ({ height_m: um(height), width_m: 0.01, length_m: 0.06 });
    expect(best({ run: run(80), clear_m: um(36) })).toBe("flow");
    expect(best({ run: run(8) })).toBe("leave");
    expect([1, 8].map((nibs) => best({ matte: true, nibs }))).toEqual(["leave", "flow"]);
    expect(best({ total_m: um(270), clear_m: um(38), peakToValley_m: um(9) })).toBe("rebase");
  });
  test("of 2,000 panels none is told to do what cuts through above the limit", () => {
    fc.assert(
      fc.property(
        fc.record({
          clear: fc.double({ min: 5, max: 160, noNaN: true }),
          sd: fc.double({ min: 1, max: 12, noNaN: true }),
          total: fc.double({ min: 60, max: 360, noNaN: true }),
          peel: fc.double({ min: 0, max: 20, noNaN: true }),
          nibs: fc.integer({ min: 0, max: 80 }),
          run: fc.option(fc.double({ min: 2, max: 200, noNaN: true })),
          matte: fc.boolean(),
          cured: fc.constantFrom(0.4, 1),
          area: fc.double({ min: 0.02, max: 4, noNaN: true }),
        }),
        (p) => {
          const d = decideOptions({
            ...usual,
            area_m2: p.area,
            clear_m: um(p.clear),
            u_clear_m: um(p.sd),
            total_m: um(p.total),
            peakToValley_m: um(p.peel),
            nibs: p.nibs,
            run: p.run === null ? null : { height_m: um(p.run), width_m: 0.01, length_m: 0.06 },
            matte: p.matte,
            cured: p.cured,
            removalOf: (steps, texture) => clearingPlan(steps, texture),
          });
          for (const o of d.options) {
            if (o.kind === "spot" || o.kind === "run" || o.kind === "full") expect(o.feasible && o.cutChance > 0.03).toBe(false);
            if (p.matte && o.kind !== "leave" && o.kind !== "flow" && o.kind !== "rebase") expect(o.feasible).toBe(false);
          }
          if (d.best) expect(d.best.feasible).toBe(true);
          if (p.cured < 1) expect(d.options.filter((o) => o.kind !== "leave").every((o) => !o.feasible)).toBe(true);
        },
      ),
      { numRuns: 2000 },
    );
  });
});

test("waiting: for the cure before any work, and for its own cure after new clear; leaving it waits for nothing", () => {
  const o = { left_s: 43_200, sandAfter_s: 57600 };
  expect(waitingOf("full", o)).toEqual({ before_s: 43200, after_s: 0 });
  expect(waitingOf("flow", { ...o, left_s: 0 })).toEqual({ before_s: 0, after_s: 57600 });
  expect(waitingOf("leave", o)).toEqual({ before_s: 0, after_s: 0 });
  expect(() => waitingOf("full", { ...o, left_s: -1 })).toThrow("left_s");
});
