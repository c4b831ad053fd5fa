import fc from "fast-check";
import { STRIPPED_FIRST } from "#core/models/defects/holds";
import { leftShare } from "#core/models/defects/remedies";
import { panelShape, suggestSpots } from "../kernel/geometry/shapes";
import { GRAIN_M } from "../models/correction/abrasives";
import { CORRECTION_SCHOOL_IDS, correctionSchool, reachOf } from "../models/correction/schools";
import { RUN_SCHOOLS } from "../models/correction/run-work";
import { NIB_TOOLS, POLISHERS, POLISHING, WET_OR_DRY } from "../models/correction/bench-habits";
import { DEFECT_IDS, DEFECT_KINDS } from "../models/defects/kinds";
import { REMEDIES } from "../models/defects/remedies";
import { FINISH_KEYS } from "../models/ways/terms";
import type { PlanStep } from "../record/bodies";
import { TEST_SHEET, coatedLedger } from "../panel/testing/test-ledger";
import { accountPanel } from "./account";
import { decideOptions } from "./options";
import { zonePlan } from "./zone-plan";

const shape = panelShape("door", { width_m: 1.1, height_m: 0.8 });
const brief = { shape, substrate: "refinish" as const, tilt_rad: Math.PI / 2, coatsPlanned: 2 };
const places = suggestSpots(shape.outline, 4);
const keys = <K extends string>(of: Record<K, unknown>) => fc.constantFrom(...(Object.keys(of) as K[]));

/** Some panel with what somebody noted on it, and a plan somebody chose for it. */
const jobs = fc.record({
  clear: fc.integer({ min: 15, max: 130 }),
  defects: fc.array(
    fc.record({
      kind: fc.constantFrom(...DEFECT_IDS),
      count: fc.integer({ min: 1, max: 30 }),
      size: fc.boolean(),
      x: fc.integer({ min: 15, max: 95 }),
    }),
    { maxLength: 4 },
  ),
  schoolId: fc.constantFrom(...CORRECTION_SCHOOL_IDS),
  runSchool: keys(RUN_SCHOOLS),
  edges: fc.constantFrom("left" as const, "hand" as const),
  lines: fc.constantFrom("left" as const, "hand" as const),
  pv: fc.integer({ min: 0, max: 12 }),
  habits: fc.record({
    polishing: keys(POLISHING),
    polisher: keys(POLISHERS),
    discs: keys(WET_OR_DRY),
    guardCut: keys(WET_OR_DRY),
    nibTool: keys(NIB_TOOLS),
  }),
});
type Job = typeof jobs extends fc.Arbitrary<infer T> ? T : never;

function stateOf({ clear, defects }: Job) {
  const l = coatedLedger({ places, under_um: [92, 90, 94, 91], clear_um: clear });
  for (const d of defects)
    l.add("defect", {
      kind: d.kind,
      count: d.count,
      at: { x_m: d.x / 100, y_m: 0.4 },
      height_m: d.size ? 40e-6 : null,
      length_m: d.size ? 0.06 : null,
      width_m: d.size ? 0.01 : null,
      measured: true,
    });
  return accountPanel(brief, TEST_SHEET, l.entries);
}
const grain = (s: PlanStep) => (s.use && "grit" in s.use ? GRAIN_M[s.use.grit][0] : null);

test("500 random jobs: no plan is absurd", () => {
  fc.assert(
    fc.property(jobs, (job) => {
      const state = stateOf(job);
      const { steps, zones, problem, minutes, unproved } = zonePlan(
        brief,
        state,
        {
          schoolId: job.schoolId,
          runSchool: job.runSchool,
          texture: { peakToValley_m: job.pv * 1e-6, u_m: 0.4e-6 },
          tape_m: 0.02,
          floor_m: 35e-6,
          edges: job.edges,
          lines: job.lines,
          habits: job.habits,
        },
        null,
      );
      // Papers get finer within each kind of work, never coarser later, and nothing is sanded after it was polished there.
      for (const zone of ["run", "spot", "panel"] as const) {
        const here = steps.filter((s) => s.zone === zone);
        const grains = here.flatMap((s) => grain(s) ?? []);
        if (zone !== "run") expect(grains).toEqual([...grains].sort((a, b) => b - a));
        const polished = here.findIndex((s) => s.use && "polish" in s.use);
        if (polished >= 0) expect(here.slice(polished).every((s) => s.use && "polish" in s.use)).toBe(true);
      }
      // A spot has a place; a plan without anything to do says so, and none takes no time.
      for (const s of steps) if (s.zone === "spot" || s.zone === "run") expect(s.at.length).toBeGreaterThan(0);
      if (steps.length > 0) {
        expect(minutes).toBeGreaterThan(0);
        for (const s of steps) expect(s.minutes).toBeGreaterThan(0);
      }
      const reach = reachOf(correctionSchool(job.schoolId));
      const atItsPlace = (d: (typeof job.defects)[number]) =>
        DEFECT_KINDS[d.kind].sign === "hang" ? d.size : leftShare(d.kind, "spot") < 1;
      const anything = job.defects.some(atItsPlace);
      if (reach === "spots") expect(problem === "no place").toBe(!anything);
      // Work at spots never touches the whole panel.
      if (reach === "spots") expect(steps.every((s) => s.zone !== "panel" && s.zone !== "hand")).toBe(true);
      for (const s of steps) expect(s.removal_m).toBeGreaterThanOrEqual(0);
      for (const z of zones) expect(z.minutes).toBeGreaterThanOrEqual(0);
      expect(unproved).toEqual([]);
    }),
    { numRuns: 500 },
  );
});

test("500 random jobs: no option is absurd", () => {
  const cases = fc.record({
    clear: fc.integer({ min: 8, max: 140 }),
    sd: fc.integer({ min: 1, max: 10 }),
    nibs: fc.integer({ min: 0, max: 40 }),
    pv: fc.integer({ min: 0, max: 12 }),
    finish: fc.constantFrom(...FINISH_KEYS),
    phase: fc.constantFrom("wet", "open", "hot", "curing", "cured"),
    faults: fc.array(fc.record({ kind: fc.constantFrom(...DEFECT_IDS), count: fc.integer({ min: 1, max: 30 }) }), { maxLength: 4 }),
  });
  fc.assert(
    fc.property(cases, ({ clear, sd, nibs, pv, finish, phase, faults }) => {
      const d = decideOptions({
        area_m2: 0.9,
        clear_m: clear * 1e-6,
        u_clear_m: sd * 1e-6,
        total_m: 150e-6,
        peakToValley_m: pv * 1e-6,
        wanted_m: finish === "flat" ? 0 : pv * 1e-6,
        nibs,
        run: null,
        faults: faults.map((f) => ({ ...f, height_m: null, area_m2: null })),
        matte: finish === "matte",
        finish,
        cured: phase === "cured" ? 1 : 0.3,
        phase,
      });
      const open = d.options.filter((o) => o.feasible);
      for (const o of open) {
        // Not before it is hard, never on matte; what is only done wet, open or hot is open only then.
        const { when } = REMEDIES[o.kind];
        if (when === "cured") expect(phase).toBe("cured");
        if (when === "wet" || when === "hot") expect(phase).toBe(when);
        if (when === "open") expect(["open", "wet"]).toContain(phase);
        if (finish === "matte") expect(["spot", "run", "full", "polish", "dropFill"]).not.toContain(o.kind);
        if (o.kind !== "leave" && o.kind !== "wait") expect(o.minutes).toBeGreaterThan(0);
        expect(o.residualChance).toBeGreaterThanOrEqual(0);
        expect(o.residualChance).toBeLessThanOrEqual(1);
      }
      // Nothing makes what is seen worse than leaving it, but by what new clear may bring.
      const left = d.options.find((o) => o.kind === "leave")!.residualChance;
      for (const o of d.options) expect(o.residualChance).toBeLessThanOrEqual(left + 0.0601);
      // Leaving it is the choice only where it is not more often rejected than not, or nothing mends half of it.
      if (d.best?.kind === "leave" && left > 0.5)
        expect(open.some((o) => o.residualChance <= left / 2 && o.kind !== "leave" && phase === "cured")).toBe(false);
      if (d.wait === "cure") expect(phase).not.toBe("cured");
      for (const f of d.measure) expect(DEFECT_KINDS[f.kind].sign).toBe("hang");
      // New base and clear brings its own chance and takes every other one off, but grain on the neighbours, which it does not touch.
      const bare = d.options.find((o) => o.kind === "rebase")!;
      const beside = faults.some((f) => f.kind === "overspray");
      const stripped = faults.some((f) => STRIPPED_FIRST[f.kind]);
      if (!beside && !stripped) expect(bare.residualChance).toBeLessThanOrEqual(0.0601);
      if (!beside && stripped) expect(bare.first.length).toBeGreaterThan(0);
      expect(bare.residualChance).toBeLessThanOrEqual(1 - (1 - 0.0601) * (1 - left));
    }),
    { numRuns: 500 },
  );
});
