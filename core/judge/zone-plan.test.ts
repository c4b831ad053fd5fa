import fc from "fast-check";
import { OPTION_FIGURES } from "#core/judge/option-figures";
import { judgeOf, planFor } from "#core/judge/plan-for";
import { type BenchHabits, USUAL_HABITS } from "#core/models/correction/bench-habits";
import { RUN_SCHOOLS, type RunSchool } from "#core/models/correction/run-work";
import { CORRECTION_SCHOOLS, CORRECTION_SCHOOL_IDS, reachOf } from "#core/models/correction/schools";
import { zonePlan as planZones } from "#core/judge/zone-plan";
import type { ZoneChoice, ZoneKind } from "#core/judge/zone-setting";
import { workOf } from "#core/judge/work";
import { LINE_STRIP_M } from "#core/judge/limits";
import { SECTION_M } from "#core/judge/zone-work";
import { assess } from "#core/judge/assess";
import type { BodyInputOf } from "#core/record/bodies";
import { type PanelState, accountPanel } from "#core/judge/account";
import { lineLength, polygonArea, polygonPerimeter } from "#core/kernel/geometry/geometry";
import { panelShape, suggestSpots } from "#core/kernel/geometry/shapes";
import { TEST_SHEET, coatedLedger, testLedger } from "#core/panel/testing/test-ledger";

const um = (x: number) => x * 1e-6;
const shape = panelShape("door", { width_m: 1.1, height_m: 0.9 });
const brief = { shape, substrate: "refinish" as const, tilt_rad: Math.PI / 2, coatsPlanned: 2 };
const places = suggestSpots(shape.outline, 6);
const runSchools = Object.keys(RUN_SCHOOLS) as RunSchool[];

const DEFECT = { length_m: null, width_m: null, height_m: null, measured: true } as const;
const RUN: BodyInputOf<"defect"> = { ...DEFECT, kind: "run", at: { x_m: 0.5, y_m: 0.5 }, length_m: 0.06, width_m: 0.01, height_m: um(60) };
const NIBS: BodyInputOf<"defect"> = { ...DEFECT, kind: "nib", at: { x_m: 0.6, y_m: 0.3 }, count: 5 };

function panel({ clear = 58, defects = [] as BodyInputOf<"defect">[] } = {}) {
  const l = coatedLedger({ places, under_um: [92, 90, 94, 91, 93, 90], clear_um: clear, defects });
  return accountPanel(brief, TEST_SHEET, l.entries);
}
const choice: ZoneChoice = {
  schoolId: "short",
  runSchool: "block",
  texture: { peakToValley_m: um(3), u_m: um(0.4) },
  tape_m: 0.02,
  floor_m: um(35),
};
const zonePlan = (b: typeof brief, state: PanelState, c: ZoneChoice) => {
  const judge = judgeOf(b, state);
  return planZones(b, state, c, judge && ((at) => judge.at(at)));
};
const zoneOf = (plan: ReturnType<typeof zonePlan>, kind: ZoneKind) => plan.zones.find((z) => z.kind === kind);

test("for every school, run school and way with rim and lines, no zone leaves marks that its next step does not clear", () => {
  const state = panel({ defects: [RUN, NIBS] });
  for (const schoolId of CORRECTION_SCHOOL_IDS)
    for (const runSchool of runSchools)
      for (const edges of ["left", "hand"] as const)
        for (const lines of ["left", "hand"] as const) {
          const plan = zonePlan(brief, state, { ...choice, schoolId, runSchool, edges, lines });
          expect({ schoolId, runSchool, unproved: plan.unproved }).toEqual({ schoolId, runSchool, unproved: [] });
          for (const { chain } of plan.zones)
            chain.slice(1).forEach((s, i) => expect(s.clears_m).toBeGreaterThanOrEqual(chain[i]!.leaves_m - 1e-12));
          for (const z of plan.zones.filter((z) => z.way !== "left")) expect(z.chain.at(-1)!.use).toEqual({ polish: "polish" });
        }
});

test("a shop that takes off less a pass goes over it more often; past what is sensible the plan says where a grit belongs between", () => {
  const own = (removal: number) => ({ whole: null, steps: { "P3000 soft machine": { removal_m: um(removal), u_m: um(0.1) } } });
  const p3000 = (removal: number) => zonePlan(brief, panel(), { ...choice, lines: "left", shop: own(removal) });
  expect(p3000(1.3).steps.find((s) => s.name === "P3000 soft")).toMatchObject({ passes: 2, own: true });
  expect(p3000(1.3).unproved).toEqual([]);
  expect(p3000(0.6).steps.find((s) => s.name === "P3000 soft")!.passes).toBe(5);
  expect(p3000(0.6).unproved).toEqual([{ zone: "flat", step: 1 }]);
});

test("order of work: runs, nibs, then the panel, by hand after the coarse papers", () => {
  const { steps } = zonePlan(brief, panel({ defects: [RUN, NIBS] }), { ...choice, edges: "hand" });
  const order = steps.map((s) => s.zone);
  expect(order.lastIndexOf("run")).toBeLessThan(order.indexOf("spot"));
  expect(order.lastIndexOf("spot")).toBeLessThan(order.indexOf("panel"));
  expect(order.indexOf("hand")).toBeGreaterThan(order.indexOf("panel"));
  expect(steps.at(-1)!.name).toBe("Polish");
  expect(steps.filter((s) => s.zone === "panel").reduce((a, s) => a + s.removal_m, 0)).toBeCloseTo(um(11.1625), 10);
  for (const s of steps) expect([s.tool.length, s.doThis.length, s.lookFor.length, s.minutes].every((n) => n > 0)).toBe(true);
});

test("areas: flat, rim and body lines make up the panel; sections are of about 0.6 × 0.6 m", () => {
  const plan = zonePlan(brief, panel(), choice);
  const rim = polygonPerimeter(shape.outline) * 0.02;
  const lines = shape.bodyLines.reduce((a, l) => a + lineLength(l), 0) * 2 * LINE_STRIP_M;
  expect(zoneOf(plan, "edge")!.area_m2).toBeCloseTo(rim, 12);
  expect(zoneOf(plan, "line")!.area_m2).toBeCloseTo(lines, 12);
  expect(zoneOf(plan, "flat")!.area_m2).toBeCloseTo(polygonArea(shape.outline) - rim - lines, 12);
  expect(zoneOf(plan, "flat")!.sections).toBe(Math.ceil(zoneOf(plan, "flat")!.area_m2 / SECTION_M ** 2));
  expect(plan.consumables.find((c) => c.what === "tape")!.amount).toBe(Math.ceil(polygonPerimeter(shape.outline)));
});

test("by hand takes less than the flat; left takes nothing and is not judged", () => {
  const state = panel();
  const hand = zonePlan(brief, state, { ...choice, edges: "hand" });
  expect(zoneOf(hand, "line")!.removal.removal_m).toBeLessThan(hand.total.removal_m);
  expect(hand.byHand.line!.share).toBeCloseTo(zoneOf(hand, "line")!.removal.removal_m / hand.total.removal_m, 12);
  expect(hand.judgedFrom_m).toBe(0);
  const left = zonePlan(brief, state, { ...choice, lines: "left" });
  expect(zoneOf(left, "line")!).toMatchObject({ way: "left", removal: { removal_m: 0 } });
  expect(left.byHand.line!.share).toBe(0);
  expect(left.judgedFrom_m).toBe(0.02);
});

test("on thin clear, body lines by hand are a smaller risk than under the machine, and left under tape the smallest", () => {
  const state = panel({ clear: 40 });
  const chance = (lines: "hand" | "left" | null) => {
    const { assess: asked } = planFor(brief, state, { ...choice, floor_m: um(30), ...(lines ? { lines } : {}) });
    const work = lines ? asked.work : { ...asked.work, panel: { ...asked.work.panel!, byHand: {} } };
    return assess({ ...asked, work, remedies: false }).thinChance;
  };
  const [machine, hand, left] = [chance(null), chance("hand"), chance("left")];
  expect(hand).toBeLessThanOrEqual(machine);
  expect(left).toBeLessThanOrEqual(hand + 0.02);
  expect(left).toBeLessThan(machine);
});

test("spots only: nothing comes off the panel's film, the nibs are the zone, and the run is finished at its place", () => {
  const plan = zonePlan(brief, panel({ defects: [RUN, NIBS] }), { ...choice, schoolId: "spot" });
  expect(plan.steps.filter((s) => s.zone === "panel")).toEqual([]);
  expect(plan.zones.map((z) => z.kind)).toEqual(["run", "spot"]);
  expect(zoneOf(plan, "spot")!.sections).toBe(5);
  expect(zoneOf(plan, "run")!.chain.some((s) => "grit" in s.use && s.use.grit === "P3000")).toBe(true);
});

test("nibs placed one by one are worked and judged one by one", () => {
  const at = [
    { x_m: 0.3, y_m: 0.3 },
    { x_m: 0.6, y_m: 0.6 },
    { x_m: 0.8, y_m: 0.4 },
  ];
  const one = zonePlan(brief, panel({ clear: 26, defects: [{ ...NIBS, count: 3 }] }), choice);
  const each = zonePlan(brief, panel({ clear: 26, defects: [{ ...NIBS, count: 3, trace: { as: "points", at } }] }), choice);
  expect(zoneOf(each, "spot")!.at).toHaveLength(3);
  expect(each.steps[0]!.at).toEqual(at);
  expect(one.steps[0]!.at).toEqual([NIBS.at]);
});

test("time agrees with what the options reckon for the same work, within a third", () => {
  for (const schoolId of ["short", "long", "fine"]) {
    const plan = zonePlan(brief, panel(), { ...choice, schoolId });
    const { minutes, minutesPer_m2 } = OPTION_FIGURES.full;
    const option = minutes + minutesPer_m2 * polygonArea(shape.outline);
    expect(plan.minutes / option).toBeGreaterThan(0.67);
    expect(plan.minutes / option).toBeLessThan(1.33);
  }
});

test("gloss to expect climbs from the paper to the polish; a usual polished clear reads 88 to 92 at 60° (common practice)", () => {
  const gloss = zonePlan(brief, panel(), choice)
    .steps.filter((s) => s.zone === "panel")
    .map((s) => s.gloss60_GU!);
  gloss.slice(1).forEach((g, i) => expect(g).toBeGreaterThan(gloss[i]!));
  expect(gloss.at(-1)!).toBeGreaterThan(85);
  expect(gloss.at(-1)!).toBeLessThan(93);
});

describe("habits of the bench", () => {
  const state = panel({ defects: [RUN, NIBS] });
  const planned = (own: Partial<BenchHabits>, more: Partial<ZoneChoice> = {}) =>
    zonePlan(brief, state, { ...choice, runSchool: "guard", ...more, habits: { ...USUAL_HABITS, ...own } });
  const usual = planned({});

  test("no habit leaves marks behind, whichever ladder and run school", () => {
    for (const schoolId of CORRECTION_SCHOOL_IDS)
      for (const polishing of ["two", "three"] as const)
        for (const polisher of ["orbital", "rotary"] as const)
          expect(planned({ polishing, polisher, nibTool: "denibber", discs: "dry" }, { schoolId }).unproved).toEqual([]);
  });
  test("a third polishing stage: one step more at the end, its own film with it", () => {
    const three = planned({ polishing: "three" });
    expect(three.steps.at(-1)!.name).toBe("Finest polish");
    expect(three.steps).toHaveLength(usual.steps.length + 1);
    expect(three.total.removal_m - usual.total.removal_m).toBeCloseTo(0.15e-6, 12);
    expect(three.consumables.some((c) => c.what === "finest polish")).toBe(true);
  });
  test("a rotary polishes in less time with its own caution, and takes off no less", () => {
    const rotary = planned({ polisher: "rotary" });
    const polish = (p: typeof usual) => p.steps.filter((s) => s.use && "polish" in s.use);
    polish(rotary).forEach((s, i) => {
      expect(s.minutes).toBeLessThan(polish(usual)[i]!.minutes);
      expect(s.doThis).toContain("off edges");
    });
    expect(rotary.total.removal_m).toBe(usual.total.removal_m);
  });
  test("dry discs: only the machine's paper is dry, more of it is used up, and dust is warned of", () => {
    const dry = planned({ discs: "dry" });
    const onPanel = (p: typeof usual) => p.steps.filter((s) => s.zone === "panel" && s.use && "grit" in s.use);
    expect(onPanel(dry).map((s) => s.wet)).toEqual(onPanel(usual).map(() => false));
    expect(dry.steps.find((s) => s.zone === "hand")!.wet).toBe(true);
    const discs = (p: typeof usual) => p.consumables.filter((c) => c.what.includes("disc, 150")).reduce((a, c) => a + c.amount, 0);
    expect(discs(dry)).toBeGreaterThan(discs(usual));
    expect(dry.cautions.join(" ")).toContain("Dry sanding");
  });
  test("the guard's filler is cut wet unless the way cuts it dry", () => {
    const first = (p: typeof usual) => p.steps.find((s) => s.name.startsWith("Run: P320"))!;
    expect([first(usual).wet, first(planned({ guardCut: "dry" })).wet]).toEqual([true, false]);
    expect(first(usual).tool).toContain("wet");
  });
  test("a de-nibbing tool takes half the time on a nib", () => {
    const minutes = (p: typeof usual) => zoneOf(p, "spot")!.minutes;
    expect(minutes(usual) - minutes(planned({ nibTool: "denibber" }))).toBeCloseTo(0.5 * NIBS.count!, 9);
  });
});

test("what is used up: paper by its life, compound by area, one blade; cautions for what is in the hand", () => {
  const plan = zonePlan(brief, panel({ defects: [RUN] }), { ...choice, runSchool: "blade" });
  const amount = (what: string) => plan.consumables.find((c) => c.what.startsWith(what))?.amount;
  expect(amount("blade")).toBe(1);
  expect(amount("P3000 disc")).toBeGreaterThan(amount("P1500 disc")!);
  expect(amount("cutting compound")).toBeCloseTo(20e-6 * zoneOf(plan, "flat")!.area_m2, 9);
  expect(plan.cautions.join(" ")).toContain("Blade");
  expect(zonePlan(brief, panel(), choice).cautions.join(" ")).not.toContain("Blade");
});

test("schools reach the whole panel, only spots, or only polish", () => {
  expect(CORRECTION_SCHOOLS.map((s) => reachOf(s))).toEqual(["panel", "panel", "panel", "panel", "panel", "spots", "polish"]);
});

test("no readings: zones stand without their film, and nothing is claimed of the risk", () => {
  const l = testLedger({ places });
  l.add("defect", RUN);
  const plan = zonePlan(brief, accountPanel(brief, TEST_SHEET, l.entries), choice);
  expect(plan.zones.map((z) => z.left)).toEqual(plan.zones.map(() => null));
  expect(plan.runs).toBeNull();
});

test("plans hold together over many panels: zones add up, steps stay in order", () => {
  fc.assert(
    fc.property(
      fc.record({
        schoolId: fc.constantFrom(...CORRECTION_SCHOOL_IDS),
        runSchool: fc.constantFrom(...runSchools, null),
        edges: fc.constantFrom("left" as const, "hand" as const),
        lines: fc.constantFrom("left" as const, "hand" as const),
        tape_m: fc.double({ min: 0, max: 0.06, noNaN: true }),
        pv: fc.double({ min: 0, max: 15, noNaN: true }),
        clear: fc.integer({ min: 12, max: 120 }),
        nibs: fc.integer({ min: 0, max: 40 }),
        run: fc.boolean(),
      }),
      ({ pv, clear, nibs, run, ...some }) => {
        const defects = [...(run ? [RUN] : []), ...(nibs ? [{ ...NIBS, count: nibs }] : [])];
        const plan = zonePlan(brief, panel({ clear, defects }), {
          ...choice,
          ...some,
          texture: { peakToValley_m: um(pv), u_m: um(0.1 * pv) },
        });
        expect(plan.unproved).toEqual([]);
        expect(plan.problem).toBe(some.schoolId === "spot" && nibs === 0 && !(run && some.runSchool) ? "no place" : null);
        for (const s of plan.steps) expect(s.minutes).toBeGreaterThan(0);
        expect(plan.minutes).toBeGreaterThanOrEqual(plan.steps.reduce((a, s) => a + s.minutes, 0) - 1e-9);
        for (const z of plan.zones) {
          expect(z.area_m2).toBeGreaterThanOrEqual(0);
          if (z.now && z.left && z.kind !== "run") expect(z.left.clear_m).toBeCloseTo(z.now.clear_m - z.removal.removal_m, 12);
        }
      },
    ),
    { numRuns: 60 },
  );
});

test("spot work takes no peel off, and without a nib or a run there is nothing to do", () => {
  const state = panel({ defects: [NIBS] });
  const by = (pv: number) =>
    zonePlan(brief, state, { ...choice, schoolId: "spot", texture: { peakToValley_m: um(pv), u_m: um(0.4) } }).total.removal_m;
  expect(by(12)).toBe(by(0)); // once the deepest peel was charged to two nibs
  expect(zonePlan(brief, panel(), { ...choice, schoolId: "spot" })).toMatchObject({ problem: "no place", steps: [] });
});

test("a run's loss stays at the run: the flat's removal is the same with and without it, and each run school has its own at the place", () => {
  const [plain, run] = [panel(), panel({ defects: [RUN] })];
  const total = (state: PanelState, runSchool: RunSchool) => planFor(brief, state, { ...choice, runSchool }).assess.work;
  const whole = total(plain, "block").panel!;
  for (const school of runSchools) {
    const work = total(run, school);
    expect(work.panel!.removal_m).toBeCloseTo(whole.removal_m, 12);
    const { plan } = planFor(brief, run, { ...choice, runSchool: school });
    const loss = plan.runs!.schools.find((s) => s.school === school)!.loss_m;
    expect(work.local[0]!.removal_m + work.panel!.removal_m).toBeCloseTo(loss, 10);
    expect(work.local[0]!.gouge!.chance).toBe(RUN_SCHOOLS[school].gougeChance);
  }
});

test("what has been worked since it was noted is not planned again; its loss counts where the panel is worked on", () => {
  const l = testLedger({ places });
  l.read("before", [92, 90, 94, 91, 93, 90]);
  l.coat(1);
  l.coat(2);
  l.read("after", [150, 148, 152, 149, 151, 148]);
  l.add("defect", RUN);
  const first = accountPanel(brief, TEST_SHEET, l.entries);
  const { plan } = planFor(brief, first, { ...choice, schoolId: "spot" });
  const planId = l.add("plan", {
    schoolId: "spot",
    runSchool: "block",
    tape_m: 0.02,
    floor_m: um(35),
    steps: plan.steps,
    removal_m: 0,
    u_removal_m: 0,
    verdict: "safe",
    cutChance: 0,
    thinChance: 0,
    inferred: false,
  });
  plan.steps.forEach((s, index) =>
    l.add("step", { planId, index, name: s.name, removal_m: s.removal_m, u_m: s.u_m, zone: s.zone, note: "" }),
  );
  const worked = accountPanel(brief, TEST_SHEET, l.entries);
  expect(zonePlan(brief, worked, { ...choice, schoolId: "spot" }).problem).toBe("no place");
  expect(zonePlan(brief, worked, choice).zones.map((z) => z.kind)).not.toContain("run");
  l.add("defect", { ...RUN, height_m: um(30) }); // something of it is seen again
  const again = accountPanel(brief, TEST_SHEET, l.entries);
  const [task] = planFor(brief, again, { ...choice, schoolId: "spot" }).assess.work.local;
  expect(task!.done_m).toBeCloseTo(
    plan.steps.reduce((a, s) => a + s.removal_m, 0),
    12,
  );
  expect(task!.uDone_m).toBeGreaterThan(0);
});

test("a plan half worked counts only what is still to come, and a blade put away slips no more", () => {
  const state = panel({ defects: [RUN, NIBS] });
  const { plan } = planFor(brief, state, { ...choice, runSchool: "blade" });
  const asBody = {
    steps: plan.steps,
    byHand: plan.byHand,
    judgedFrom_m: plan.judgedFrom_m,
    tape_m: 0.02,
    floor_m: um(35),
    runSchool: "blade" as const,
    part: null,
  };
  const at = (from: number) => workOf(asBody, [], from);
  expect(at(0).local[0]!.gouge).toBeDefined();
  expect(at(1).local[0]!.gouge).toBeUndefined();
  const local = plan.steps.filter((s) => s.zone === "run" || s.zone === "spot").length;
  expect(at(local).local).toEqual([]);
  expect(at(local).panel!.removal_m).toBeCloseTo(plan.total.removal_m, 12);
  expect(at(plan.steps.length)).toMatchObject({ panel: null, local: [] });
});
