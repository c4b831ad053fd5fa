import { panelShape, suggestSpots } from "#core/kernel/geometry/shapes";
import { UNMEASURED_REMOVAL, clearingPlan } from "#core/models/correction/clearing";
import { conditionedOnMarks } from "#core/models/correction/removal-on-marks";
import { weighMeasured } from "#core/models/correction/measured-step";
import { TEST_SHEET, coatedLedger, threeFilms } from "#core/panel/testing/test-ledger";
import { readAtMark } from "#core/panel/read-marks";
import { accountPanel } from "./account";
import { FilmJudge } from "./film-judge";
import { assessFromHere } from "./film-question";
import { judgeOf, planBody, planFor } from "./plan-for";
import type { ZoneChoice } from "./zone-setting";

const um = (x: number) => x * 1e-6;
const shape = panelShape("door", { width_m: 1.1, height_m: 0.9 });
const brief = { shape, substrate: "refinish" as const, tilt_rad: Math.PI / 2, coatsPlanned: 2 };
const places = suggestSpots(shape.outline, 7);
const UNDER_UM = places.map((_, i) => 91 + ((7 * i) % 5));
const choice: ZoneChoice = {
  schoolId: "short",
  runSchool: null,
  texture: { peakToValley_m: um(5), u_m: um(0.5) },
  tape_m: 0.02,
  floor_m: um(35),
  shop: UNMEASURED_REMOVAL,
};

/** A panel with a plan in force: the chances it has, and those it is said to have once its first step is read at a mark. */
function planned(clear_um: number) {
  const l = coatedLedger({ places, under_um: UNDER_UM, clear_um });
  const state = accountPanel(brief, TEST_SHEET, l.entries);
  const { plan, assess: asked } = planFor(brief, state, choice);
  const judge = judgeOf(brief, state)!;
  const [now, promised] = [judge.risk(asked.work), judge.risk(asked.work.measured![0]!.work)];
  const planId = l.add("plan", planBody(choice, plan, { ...now, inferred: false }));
  return { l, plan, planId, now, promised };
}

/** The first step done and read at a mark, so many times what was forecast; the rest of the plan from there. */
function marked({ l, plan, planId }: ReturnType<typeof planned>, times: number) {
  const first = plan.steps[0]!;
  const measured = { before: threeFilms(150), after: threeFilms(150 - 1e6 * times * first.removal_m) };
  const stepId = l.add("step", {
    planId,
    index: 0,
    name: first.name,
    ...weighMeasured(first, readAtMark(measured)),
    note: "",
    measured,
  });
  return { stepId, ...fromHere(l.entries) };
}
function fromHere(entries: ReturnType<typeof coatedLedger>["entries"]) {
  const state = accountPanel(brief, TEST_SHEET, entries);
  const { removal, assess: asked } = assessFromHere(brief, state)!;
  return { state, removal, risk: new FilmJudge(asked.film, { hypotheses: asked.hypotheses }).risk(asked.work) };
}

test("what a mark is said to turn safe is safe once the first step was read at one and came out as forecast", () => {
  let turned = 0;
  for (const clear_um of [63.8, 64.2]) {
    const panel = planned(clear_um);
    expect(panel.promised.thinChance).toBeLessThanOrEqual(panel.now.thinChance);
    if (panel.now.verdict === "safe" || panel.promised.verdict !== "safe") continue;
    turned++;
    expect(marked(panel, 1).risk.verdict).toBe("safe");
  }
  expect(turned).toBeGreaterThan(0);
});

test("more at the mark than forecast: every step to come takes more and its chance rises; less: the other way; taken out, all is as before", () => {
  const rest = (times: number) => marked(planned(60), times);
  const [less, even, more] = [rest(0.6), rest(1), rest(1.5)];
  expect(more.removal.removal_m).toBeGreaterThan(1.02 * even.removal.removal_m);
  expect(less.removal.removal_m).toBeLessThan(0.98 * even.removal.removal_m);
  expect(more.risk.thinChance).toBeGreaterThan(even.risk.thinChance);
  expect(less.risk.thinChance).toBeLessThanOrEqual(even.risk.thinChance);
  expect(more.removal.u_m).toBeCloseTo(even.removal.u_m, 12); // how well it is known does not hang on what was read

  const panel = planned(60);
  const { stepId } = marked(panel, 1.5);
  panel.l.add("strike", { reason: "read the wrong mark" }, { supersedes: stepId });
  const back = accountPanel(brief, TEST_SHEET, panel.l.entries);
  expect(back.told).toEqual([]);
  expect(back.plan!.body.steps).toEqual(panel.plan.steps);
});

test("a plan made after a mark has it in it, once: its steps are not told the same again, and a second mark adds to the first", () => {
  const panel = planned(60);
  const { state } = marked(panel, 1.5);
  const shop = { ...UNMEASURED_REMOVAL, told: state.told };
  const next = planFor(brief, state, { ...choice, shop }).plan;
  const plain = planFor(brief, state, choice).plan;
  expect(next.total.removal_m).toBeGreaterThan(plain.total.removal_m);
  expect(next.total.u_m).toBeLessThan(plain.total.u_m);
  expect(next.total.removal_m).toBeCloseTo(
    clearingPlan(
      next.steps.flatMap((s) => (s.zone === "panel" && s.use ? [s.use] : [])),
      choice.texture,
      shop,
    ).total.removal_m,
    12,
  );
  const planId = panel.l.add("plan", planBody(choice, next, { ...panel.now, inferred: false }));
  const again = accountPanel(brief, TEST_SHEET, panel.l.entries);
  expect(again.plan!.body.steps).toEqual(next.steps);
  expect(again.told).toEqual(state.told);

  // Every step is better known by two marks than by one, and the second came out as that plan forecast.
  const second = marked({ ...panel, plan: next, planId }, 1).state;
  for (const step of panel.plan.steps.slice(1)) {
    const [one, two] = [conditionedOnMarks(step, state.told), conditionedOnMarks(step, second.told)];
    if (one === step) continue;
    expect(two.u_m).toBeLessThan(one.u_m);
    expect(two.removal_m).toBeCloseTo(one.removal_m, 9);
  }
});

test("a further plan that is only kept changes no figure of the film: what the steps of the one before have in common stays", () => {
  const panel = planned(60);
  for (const [index, step] of panel.plan.steps.slice(0, 3).entries())
    panel.l.add("step", { planId: panel.planId, index, name: step.name, removal_m: step.removal_m, u_m: step.u_m, note: "" });
  const before = accountPanel(brief, TEST_SHEET, panel.l.entries);
  panel.l.add("plan", planBody(choice, panel.plan, { ...panel.now, inferred: false }));
  const after = accountPanel(brief, TEST_SHEET, panel.l.entries);
  expect(after.changes_m).toEqual(before.changes_m);
  expect(after.film).toEqual(before.film);
  expect(after.doneSince).toEqual(before.doneSince);
});
