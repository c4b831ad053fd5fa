import { planBooth } from "#core/models/schedule/booth-plan";
import { panelShape } from "#core/kernel/geometry/shapes";
import { fixCoat, replanFromNow, saveBoothPlan } from "./commands/booth-plan";
import { archiveJob, addPanel } from "./commands/jobs";
import { recordEntry } from "./commands/record-entry";
import { boothPlanToIcs } from "./interchange/booth-plan-ics";
import { getBoothPlan } from "./repos/booth-plan-repo";
import { coatBody, readingBody, testContext, testJob } from "./testing/fixtures";
import { loadBooth } from "./views/booth-view";
import { DEFAULT_RULES, loadBoothPlan } from "./views/booth-plan-view";

const MIN_MS = 60_000;
const rules = { ...DEFAULT_RULES, end_ms: null };

async function shop() {
  const ctx = await testContext();
  const { jobId, panelId, revisionId } = await testJob(ctx);
  const doorId = await addPanel(ctx, jobId, {
    name: "Door",
    shape: panelShape("door", { width_m: 1.1, height_m: 0.7 }),
    tilt_rad: Math.PI / 2,
    substrate: "factory",
    productRevisionId: revisionId,
    coatsPlanned: 2,
  });
  const part = (id: string) => ({ panelId: id, sides: 1 as const, group: null, spray_s: 300 });
  const start_ms = ctx.now_ms();
  const save = async (expected: string | null = null) =>
    (await saveBoothPlan(ctx, { start_ms, parts: [part(panelId), part(doorId)], rules }, expected)).promised;
  return { ctx, jobId, panelId, doorId, start_ms, save };
}
const planned = (view: Awaited<ReturnType<typeof loadBoothPlan>>) => {
  const answer = planBooth(view.problem);
  if (answer.kind !== "planned") throw new Error("no plan");
  return answer.plan;
};

test("before a plan is set the job's own open panels are proposed, and nothing is stored", async () => {
  const { ctx, jobId } = await shop();
  const view = await loadBoothPlan(ctx, jobId);
  expect(view.stored).toBe(false);
  expect(view.candidates.map((c) => [c.name, c.chosen])).toEqual([
    ["Bonnet", true],
    ["Door", true],
  ]);
  expect(view.problem.parts[0]).toMatchObject({ coats: 2, flashMin_s: 600, flashMax_s: 2700, potLife_s: 5400, done: 0 });
  expect((await loadBoothPlan(ctx, null)).problem.parts).toEqual([]);
  expect(await getBoothPlan(ctx.db)).toBeNull();
});

test("a set plan goes on from what was really sprayed, and tells its delay against what was planned", async () => {
  const { ctx, panelId, save, start_ms } = await shop();
  await save();
  const first = planned(await loadBoothPlan(ctx, null));
  const { promisedEnd_ms } = (await getBoothPlan(ctx.db))!.body;
  expect(promisedEnd_ms).toBeCloseTo(start_ms + first.end_s * 1000, -3);
  ctx.advance(40 * MIN_MS);
  await recordEntry(ctx, { panelId, kind: "coat", body: { ...coatBody(1), duration_s: 280 }, by: "painter A" });
  const view = await loadBoothPlan(ctx, null);
  expect(view.problem.parts.map((p) => [p.id === panelId, p.done])).toEqual([
    [true, 1],
    [false, 0],
  ]);
  expect(view.sprayed).toEqual([{ panelId, coat: 1, start_ms: ctx.now_ms() - 280_000, end_ms: ctx.now_ms() }]);
  const later = planned(view);
  expect(later.sprays).toHaveLength(3);
  expect(view.origin_ms + later.end_s * 1000).toBeGreaterThan(promisedEnd_ms!);
  expect(later.sprays.find((s) => s.part === panelId)!.start_s * 1000 + view.origin_ms).toBeGreaterThanOrEqual(
    ctx.now_ms() + 10 * MIN_MS - 1,
  );
  await (
    await replanFromNow(ctx, view.version)
  ).promised;
  expect((await getBoothPlan(ctx.db))!.body.promisedEnd_ms).toBeCloseTo(view.origin_ms + later.end_s * 1000, -3);
});

test("a fixed coat stays at its time until it is let go; a passed one no longer binds", async () => {
  const { ctx, doorId, save, start_ms } = await shop();
  await save();
  const { version } = (await getBoothPlan(ctx.db))!;
  await fixCoat(ctx, { panelId: doorId, coat: 1, start_ms: start_ms + 50 * MIN_MS, version });
  let view = await loadBoothPlan(ctx, null);
  const spray = planned(view).sprays.find((s) => s.part === doorId && s.coat === 1)!;
  expect(view.origin_ms + spray.start_s * 1000).toBeCloseTo(start_ms + 50 * MIN_MS, -1);
  ctx.advance(60 * MIN_MS);
  view = await loadBoothPlan(ctx, null);
  expect([view.missed, view.problem.fixed]).toEqual([1, []]);
  await fixCoat(ctx, { panelId: doorId, coat: 1, start_ms: null, version: view.version });
  expect((await loadBoothPlan(ctx, null)).missed).toBe(0);
});

test("of two windows the second is told; nothing is overwritten", async () => {
  const { ctx, doorId, save } = await shop();
  await save();
  const { version } = (await getBoothPlan(ctx.db))!;
  await fixCoat(ctx, { panelId: doorId, coat: 1, start_ms: ctx.now_ms() + 30 * MIN_MS, version });
  await expect(fixCoat(ctx, { panelId: doorId, coat: 2, start_ms: null, version })).rejects.toThrow("another window");
  expect((await getBoothPlan(ctx.db))!.body.fixed).toHaveLength(1);
});

test("a job put away leaves the plan", async () => {
  const { ctx, jobId, save } = await shop();
  await save();
  await archiveJob(ctx, jobId, true);
  expect((await loadBoothPlan(ctx, null)).problem.parts).toEqual([]);
});

test("calendar file: RFC 5545 frame, an event a coat and a pot, times in UTC, lines of at most 75 octets", async () => {
  const { ctx, save } = await shop();
  await save();
  const view = await loadBoothPlan(ctx, null);
  const plan = planned(view);
  const ics = boothPlanToIcs(plan, { ...view, now_ms: ctx.now_ms() });
  expect(ics.startsWith("BEGIN:VCALENDAR\r\nVERSION:2.0\r\n")).toBe(true);
  expect(ics.trimEnd().endsWith("END:VCALENDAR")).toBe(true);
  expect(ics.match(/BEGIN:VEVENT/g)).toHaveLength(plan.sprays.length + plan.pots.length);
  const firstStart = new Date(view.origin_ms + plan.sprays[0]!.start_s * 1000).toISOString().replace(/[-:]|\.\d+/g, "");
  expect(ics).toContain(`DTSTART:${firstStart}`);
  expect(ics).toContain("SUMMARY:Mix Clear T\\, pot 1");
  for (const line of ics.split("\r\n")) expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75);
});

test("a coat that is fixed or let go while the rules are being typed does not stop them: the times fixed by hand stay", async () => {
  const { ctx, doorId, save } = await shop();
  await save();
  const { rulesVersion, version } = await loadBoothPlan(ctx, null);
  const start_ms = ctx.now_ms() + 50 * MIN_MS;
  await fixCoat(ctx, { panelId: doorId, coat: 1, start_ms, version });
  await save(rulesVersion);
  expect((await getBoothPlan(ctx.db))!.body.fixed).toEqual([{ panelId: doorId, coat: 1, start_ms }]);
});

test("a plan that takes long to work out is stored before that; what is changed meanwhile stands, and its promise is told when it is there", async () => {
  const { ctx, doorId, panelId, start_ms } = await shop();
  const answers: (() => void)[] = [];
  const slow = {
    ...ctx,
    inThread: ((op: never, input: never) =>
      new Promise((done) => answers.push(() => done(ctx.inThread(op, input))))) as typeof ctx.inThread,
  };
  const parts = [panelId, doorId].map((id) => ({ panelId: id, sides: 1 as const, group: null, spray_s: 300 }));
  const { promised } = await saveBoothPlan(slow, { start_ms, parts, rules }, null);
  const stored = (await getBoothPlan(ctx.db))!;
  expect(stored.body).toMatchObject({ parts, promisedEnd_ms: null });
  await fixCoat(ctx, { panelId: doorId, coat: 1, start_ms: start_ms + 50 * MIN_MS, version: stored.version });
  while (answers.length === 0) await new Promise((next) => setTimeout(next, 1));
  answers[0]!();
  await promised;
  const then = (await getBoothPlan(ctx.db))!;
  expect(then.body.fixed).toEqual([{ panelId: doorId, coat: 1, start_ms: start_ms + 50 * MIN_MS }]);
  expect(then.body.promisedEnd_ms).toBeGreaterThan(start_ms);
  expect(then.version).toBe(stored.version + 1); // the coat alone
  // Of rules that other rules have taken the place of, no promise is kept.
  const late = saveBoothPlan(slow, { start_ms, parts, rules: { ...rules, painters: 2 } }, null);
  await late;
  await (
    await saveBoothPlan(ctx, { start_ms, parts, rules: { ...rules, painters: 3 } }, null)
  ).promised;
  const kept = (await getBoothPlan(ctx.db))!.body.promisedEnd_ms;
  while (answers.length === 1) await new Promise((next) => setTimeout(next, 1));
  answers[1]!();
  await (
    await late
  ).promised;
  expect((await getBoothPlan(ctx.db))!.body).toMatchObject({ promisedEnd_ms: kept, rules: { painters: 3 } });
});

test("what the booth plan says is what the course knows: base still flashing moves the first coat, film unread and marked faults are named", async () => {
  const { ctx, jobId, panelId, doorId } = await shop();
  const by = "painter A";
  await recordEntry(ctx, { panelId, kind: "colourCoat", body: { coat: "base" }, by });
  const base = await loadBoothPlan(ctx, jobId);
  const bonnet = base.problem.parts.find((p) => p.id === panelId)!;
  expect(bonnet.from_s).toBeGreaterThan(0);
  const { sprays } = planned(base);
  expect(sprays.find((s) => s.part === panelId && s.coat === 1)!.start_s).toBeGreaterThanOrEqual(bonnet.from_s! - 1e-6);
  expect(base.first.map((f) => [f.panelId, f.before])).toEqual([
    [panelId, "read"],
    [doorId, "read"],
  ]);
  const booth = await loadBooth(ctx, jobId);
  expect(booth!.panels.map((p) => p.before)).toEqual(["read", "read"]);
  // Read, it is free; with lifted film marked it is held.
  await recordEntry(ctx, { panelId: doorId, kind: "reading", body: readingBody("before", "1", 90), by });
  expect((await loadBooth(ctx, jobId))!.panels.find((p) => p.id === doorId)!.before).toBeNull();
  const peeling = { kind: "peeling" as const, at: { x_m: 0.5, y_m: 0.4 }, length_m: null, width_m: null, height_m: null, measured: true };
  await recordEntry(ctx, { panelId: doorId, kind: "defect", body: peeling, by });
  expect((await loadBooth(ctx, jobId))!.panels.find((p) => p.id === doorId)).toMatchObject({ before: "held", holds: [{ by: "fault" }] });
  expect((await loadBoothPlan(ctx, jobId)).first.find((f) => f.panelId === doorId)!.before).toBe("held");
});
