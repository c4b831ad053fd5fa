import fc from "fast-check";
import { DEFAULT_REMOVAL, clearingPlan, skippedSteps } from "../models/correction/clearing";
import { NIB_TOOLS, WET_OR_DRY } from "../models/correction/bench-habits";
import { RUN_SCHOOLS } from "../models/correction/run-work";
import { CORRECTION_SCHOOLS } from "../models/correction/schools";
import { localWork } from "./local-work";
import { nibTask, runTasks } from "./zone-work";

const keys = <K extends string>(of: Record<K, unknown>) => fc.constantFrom(...(Object.keys(of) as K[]));
const ladderOf = (id: number) =>
  clearingPlan(
    CORRECTION_SCHOOLS[id]!.steps.map((s) => s.use),
    undefined,
    DEFAULT_REMOVAL,
  ).steps;
const schools = fc.integer({ min: 0, max: CORRECTION_SCHOOLS.length - 1 });

test("whatever is done at a place, no marks of it are left when the panel's ladder has been over it", () => {
  fc.assert(
    fc.property(keys(RUN_SCHOOLS), keys(NIB_TOOLS), keys(WET_OR_DRY), schools, fc.boolean(), (run, nibTool, guardCut, school, nibs) => {
      const tasks = nibs ? [nibTask({ nibTool })] : runTasks(run, { guardCut });
      const work = localWork(tasks, nibs ? "Nibs" : "Run", ladderOf(school), DEFAULT_REMOVAL);
      expect(skippedSteps(work.chain)).toEqual([]);
      // Each task of the school is there once, in its order; what lies between comes after all of them.
      expect(work.tasks.slice(0, tasks.length).map((t) => t.task.name)).toEqual(tasks.map((t) => t.name));
      expect(work.tasks.slice(tasks.length).every((t) => t.between)).toBe(true);
      expect(work.tasks.slice(0, tasks.length).some((t) => t.between)).toBe(false);
    }),
  );
});

test("what comes off is the sum of its tasks, and what lies between is a part of it", () => {
  fc.assert(
    fc.property(keys(RUN_SCHOOLS), schools, (run, school) => {
      const work = localWork(runTasks(run, { guardCut: "wet" }), "Run", ladderOf(school), DEFAULT_REMOVAL);
      expect(work.all.removal_m).toBeCloseTo(
        work.tasks.reduce((a, t) => a + t.removal.removal_m, 0),
        15,
      );
      expect(work.between.removal_m).toBeLessThanOrEqual(work.all.removal_m + 1e-15);
      expect(work.rest.removal_m).toBeGreaterThan(0);
      for (const t of work.tasks) expect(t.passes).toBeGreaterThanOrEqual(1);
    }),
  );
});

test("a shop that takes off more with a paper takes off more with it at a place as well, and the rest stays", () => {
  const own = { whole: null, steps: { "P1000 hard hand": { removal_m: 9e-6, u_m: 1e-6 } } };
  const tasks = runTasks("block", { guardCut: "wet" });
  const usual = localWork(tasks, "Run", ladderOf(0), DEFAULT_REMOVAL);
  const shop = localWork(tasks, "Run", ladderOf(0), own);
  const of = (work: typeof usual, name: string) => work.tasks.find((t) => t.task.name === name)!;
  expect(of(shop, "Run: P1000 hard").removal.removal_m).toBeGreaterThan(of(usual, "Run: P1000 hard").removal.removal_m);
  expect(of(shop, "Run: P1000 hard").own).toBe(true);
  expect(of(shop, "Run: P800 hard").removal).toEqual(of(usual, "Run: P800 hard").removal);
});
