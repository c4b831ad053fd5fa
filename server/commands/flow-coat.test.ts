import { courseOf } from "#core/course/course";
import { nextAction } from "#core/course/steps";
import { flowPlanOf } from "#core/judge/flow-question";
import { optionQuestion } from "#core/judge/questions";
import { weighOptions } from "#core/judge/option-case";
import { DEFAULT_RATES } from "#core/judge/option-figures";
import { usualCoat } from "#core/models/ways/house-ways";
import { getPanel } from "#server/repos/panel-repo";
import { coatBody, readingBody, testContext, testJob } from "#server/testing/fixtures";
import { courseAsked } from "#server/summary/panel-summary";
import { loadPanelView } from "#server/views/panel-view";
import { planFlowCoat } from "./flow-coat";
import { recordEntry } from "./record-entry";

let ctx: Awaited<ReturnType<typeof testContext>>;
beforeEach(async () => {
  ctx = await testContext();
});
afterEach(() => ctx.db.destroy());
const by = "painter A";
const coat = { ...usualCoat(), role: "flow", speedFactor: 0.92, reducerShift: 0.075 };

/** Two coats on, read before and after at four spots, a night ago. */
async function twoCoats() {
  const job = await testJob(ctx);
  const add = (kind: "coat" | "reading", body: object) => recordEntry(ctx, { panelId: job.panelId, kind, body: body as never, by });
  const at = (i: number) => ({ x_m: 0.3 + 0.2 * i, y_m: 0.5 });
  for (let i = 1; i <= 4; i++) await add("reading", readingBody("before", String(i), 90, at(i)));
  for (const n of [1, 2]) {
    await add("coat", coatBody(n));
    ctx.advance(11 * 60_000);
  }
  ctx.advance(20 * 3_600_000);
  for (let i = 1; i <= 4; i++) await add("reading", readingBody("after", String(i), 146, at(i)));
  return job;
}
const viewOf = async (job: { jobId: string; panelId: string }) => (await loadPanelView(ctx, job.jobId, job.panelId))!;

test("a flow coat is planned from what is on: the way, the coats, the ledger and the course all say so", async () => {
  const job = await twoCoats();
  expect(await planFlowCoat(ctx, { ...job, coat, coats: 2, by, clientKey: "k" })).toBe(4);
  expect(await planFlowCoat(ctx, { ...job, coat, coats: 2, by, clientKey: "k" })).toBe(4); // sent twice it is planned once
  const view = await viewOf(job);
  expect(view.job.way).toMatchObject({ id: "flow-two-full", name: "Two full wet, then flow coat" });
  expect(view.panel.coatsPlanned).toBe(4);
  const steps = courseOf({ ...courseAsked(view.panel, view.product, view.job, view.state), now_ms: ctx.now_ms() });
  expect(nextAction(steps)).toMatchObject({ kind: "flatten", grit: 800 });
  expect(steps.filter((s) => s.kind === "coat" && s.state !== "done").map((s) => s.number)).toEqual([3, 4]);
});

test("with no coat there is nothing to lay it on, and nothing is changed", async () => {
  const job = await testJob(ctx);
  await expect(planFlowCoat(ctx, { ...job, coat, coats: 2, by, clientKey: null })).rejects.toThrow("No coat is logged");
  expect((await getPanel(ctx.db, job.panelId))!.coatsPlanned).toBe(2);
});

test("what the options say of a flow coat is what its own page says: film off, film then, and whether it runs", async () => {
  const job = await twoCoats();
  const view = await viewOf(job);
  const plan = flowPlanOf(view)!;
  const { answer } = weighOptions(optionQuestion(view, { cured: 1, rates: DEFAULT_RATES }), { draws: 200 });
  const option = answer!.decision.options.find((o) => o.kind === "flow")!;
  expect(option.removal_m).toBeCloseTo(plan.flat.removal_m, 12);
  expect(option.left_m).toBeCloseTo(answer!.case.clear_m - plan.flat.removal_m + plan.stage.adds_m, 12);
  expect(option.why.some((w) => w.because === "runs")).toBe(plan.stage.against === "runs");
});

test("peel that was seen goes deeper than a usual flatting: the sanding has to take it all", async () => {
  const job = await twoCoats();
  const usual = flowPlanOf(await viewOf(job))!.flat.removal_m;
  await recordEntry(ctx, {
    panelId: job.panelId,
    kind: "defect",
    body: { kind: "peel", at: { x_m: 0.5, y_m: 0.5 }, length_m: null, width_m: null, height_m: 9e-6, measured: true },
    by,
  });
  expect(flowPlanOf(await viewOf(job))!.flat.removal_m).toBeGreaterThan(Math.max(usual, 9e-6));
});
