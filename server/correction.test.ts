import sharp from "sharp";
import { settleCause, answerQuestion } from "./commands/causes";
import type { PlanStep } from "#core/record/bodies";
import { completeStep, passAgain, startStep, stopThrough, storePlan } from "./commands/correction";
import { keepPhoto } from "./commands/photos";
import { changeShop } from "./commands/house";
import { readStandInMark } from "./devices/take-readings";
import { getPhoto } from "./repos/photo-repo";
import { loadLearnt, stepsToTakeOver } from "./views/learnt-view";
import { exportJob, importJob } from "./commands/job-bundles";
import { recordEntry, strikeEntry } from "./commands/record-entry";
import { bundleSchema, readBundle } from "./interchange/job-bundle";
import { readFileSync } from "node:fs";
import { coatBody, readingBody, testContext, testJob } from "./testing/fixtures";
import { loadCauses } from "./views/causes-view";
import { loadSprayed } from "./views/next-time-view";
import { optionSetting } from "./views/options-view";
import { loadFilmHistory, loadPanelView } from "./views/panel-view";
import { lastGood, repeatedCauses, resultOf } from "#core/panel/next-time";

const by = "painter A";
const nib = { kind: "nib" as const, at: { x_m: 0.5, y_m: 0.4 }, length_m: 0.0006, width_m: null, height_m: 12e-6, measured: false };

const CHOICE = { schoolId: "short", runSchool: null, texture: { peakToValley_m: 3e-6, u_m: 0.4e-6 }, tape_m: 0.02 };

/** A panel sprayed twice, read before and after at four places, with a nib. */
async function sprayed(shared?: Awaited<ReturnType<typeof testContext>>) {
  const ctx = shared ?? (await testContext());
  const { jobId, panelId } = await testJob(ctx);
  const places = [
    [0.3, 0.3],
    [0.9, 0.3],
    [0.3, 0.9],
    [0.9, 0.9],
  ] as const;
  const read = async (phase: "before" | "after", film: number) => {
    for (const [i, [x_m, y_m]] of places.entries()) {
      ctx.advance(1000);
      await recordEntry(ctx, { panelId, kind: "reading", by, body: readingBody(phase, String(i + 1), film + i, { x_m, y_m }) });
    }
  };
  await read("before", 90);
  for (const n of [1, 2]) {
    ctx.advance(900_000);
    await recordEntry(ctx, { panelId, kind: "coat", by, body: coatBody(n) });
  }
  ctx.advance(70_000_000);
  await read("after", 165);
  await recordEntry(ctx, { panelId, kind: "defect", by, body: { ...nib, count: 7 } });
  const view = async () => {
    ctx.advance(1000);
    return (await loadPanelView(ctx, jobId, panelId))!;
  };
  return { ctx, jobId, panelId, view };
}

test("causes: the record speaks, answers go before it and can be taken back, the final word counts for the shop's next panel", async () => {
  const { ctx, view } = await sprayed();
  const first = await loadCauses(ctx, await view(), "nib");
  expect(first.record.flashShort).toBe(false);
  expect(first.diagnosis.enough).toBe(false);
  await answerQuestion(ctx, await view(), { kind: "nib", id: "untacked", so: true, by });
  await answerQuestion(ctx, await view(), { kind: "nib", id: "baseColour", so: true, by });
  const told = await loadCauses(ctx, await view(), "nib");
  expect(told.answers).toEqual({ untacked: true, baseColour: true });
  expect(told.diagnosis.causes[0]!.id).toBe("noTack");
  await answerQuestion(ctx, await view(), { kind: "nib", id: "baseColour", so: null, by });
  expect((await loadCauses(ctx, await view(), "nib")).answers).toEqual({ untacked: true });
  const wordId = await settleCause(ctx, await view(), { kind: "nib", causeId: "noTack", by });
  const settled = await loadCauses(ctx, await view(), "nib");
  expect(settled.settled).toBe("noTack");
  expect(settled.finalWords).toEqual({}); // its own word does not count for itself
  const other = await testJob(ctx);
  const next = (await loadPanelView(ctx, other.jobId, other.panelId))!;
  expect((await loadCauses(ctx, next, "nib")).finalWords).toEqual({ noTack: 1 });
  await strikeEntry(ctx, wordId, { by, reason: "" });
  expect((await loadCauses(ctx, next, "nib")).finalWords).toEqual({});
});

test("work: a pass more takes its film off without ticking a step; colour on the cloth stops the plan; both can be undone", async () => {
  const { ctx, view } = await sprayed();
  const planId = await storePlan(ctx, await view(), { choice: CHOICE, by, clientKey: null });
  await expect(passAgain(ctx, await view(), { planId, by })).rejects.toThrow("no sanding or polishing step");
  const untouched = (await view()).state.film.mean!.clear_m;
  await completeStep(ctx, await view(), { planId, index: 0, note: "", by, clientKey: null }); // nibs: at their places only
  expect((await view()).state.film.mean!.clear_m).toBe(untouched);
  await completeStep(ctx, await view(), { planId, index: 1, note: "", by, clientKey: null });
  const before = (await view()).state;
  expect(before.film.mean!.clear_m).toBeLessThan(untouched);
  const again = await passAgain(ctx, await view(), { planId, by });
  const after = (await view()).state;
  expect([after.stepsDone.length, after.extraPasses.length]).toEqual([2, 1]);
  expect(before.film.mean!.clear_m - after.film.mean!.clear_m).toBeCloseTo(1.1 * 1.25 * 0.2 * 12.6e-6, 6);
  await strikeEntry(ctx, again, { by, reason: "" });
  expect((await view()).state.extraPasses).toHaveLength(0);
  const through = await stopThrough(ctx, await view(), { note: "", by });
  expect((await view()).state.through?.id).toBe(through);
  await expect(passAgain(ctx, await view(), { planId: "old", by })).rejects.toThrow("changed in another window");
});

test("a step's card: its clock, one mark read before and after, and gloss; a started step survives and is not started twice", async () => {
  const { ctx, view } = await sprayed();
  const planId = await storePlan(ctx, await view(), { choice: CHOICE, by, clientKey: null });
  await expect(startStep(ctx, await view(), { planId, index: 1, by })).rejects.toThrow("in their order");
  const started = await startStep(ctx, await view(), { planId, index: 0, by });
  expect(await startStep(ctx, await view(), { planId, index: 0, by })).toBe(started);
  expect((await view()).state.working?.id).toBe(started);
  ctx.advance(240_000);
  await completeStep(ctx, await view(), { planId, index: 0, note: "", by, clientKey: null, gloss60_GU: 12 });
  const done = (await view()).state;
  expect(done.working).toBeNull();
  expect(done.stepsDone[0]!.body.duration_s).toBeGreaterThan(239);
  expect(done.stepsDone[0]!.body.gloss60_GU).toBe(12);
  const planned = done.plan!.body.steps[1]!;
  const film = (um: number) => [0, 1, -1].map((d) => ({ thickness_m: (um + d) * 1e-6, entered: String(um + d), unit: "µm" }));
  await completeStep(ctx, await view(), {
    planId,
    index: 1,
    note: "",
    by,
    clientKey: null,
    measured: { before: film(165), after: film(153) },
    simulated: true,
  });
  const step = (await view()).state.stepsDone[1]!;
  expect(step.simulated).toBe(true);
  expect(step.body.forecast_m).toBe(planned.removal_m);
  expect(step.body.removal_m).toBeGreaterThan(planned.removal_m); // the mark says 12 µm
  expect(step.body.removal_m).toBeLessThan(12e-6);
  expect(step.body.u_m).toBeLessThan(planned.u_m);
});

test("what a shop's own steps take off: learnt from three marks, taken over into the next plan, and not learnt against itself", async () => {
  const film = (um: number) => [{ thickness_m: um * 1e-6, entered: String(um), unit: "µm" }];
  const ctx = (await sprayed()).ctx;
  const worked = async () => {
    const panel = await sprayed(ctx);
    const planId = await storePlan(ctx, await panel.view(), { choice: CHOICE, by, clientKey: null });
    const { steps } = (await panel.view()).state.plan!.body;
    for (const [index, s] of steps.entries()) {
      const measured = s.name === "P1500 medium" ? { before: film(160), after: film(151) } : null; // 3 µm of it is texture
      await completeStep(ctx, await panel.view(), { planId, index, note: "", by, clientKey: null, measured });
    }
    return panel;
  };
  await worked();
  await worked();
  expect((await loadLearnt(ctx)).steps).toMatchObject([{ key: "P1500 medium machine", n: 2, enough: false }]);
  expect(stepsToTakeOver((await loadLearnt(ctx)).steps)).toEqual({});
  const third = await worked();
  const [learnt] = (await loadLearnt(ctx)).steps;
  expect(learnt!.enough).toBe(true);
  expect(learnt!.mean_m).toBeGreaterThan(learnt!.prior.mean_m);
  expect(learnt!.mean_m).toBeLessThan(6e-6);
  const usual = (await third.view()).state.plan!.body;
  const learntSteps = stepsToTakeOver((await loadLearnt(ctx)).steps);
  await changeShop(ctx, (shop) => ({ ...shop, learntSteps }));
  const next = await sprayed(ctx);
  await storePlan(ctx, await next.view(), { choice: CHOICE, by, clientKey: null });
  const { body } = (await next.view()).state.plan!;
  const [own, before] = [body, usual].map((b) => b.steps.find((s) => s.name === "P1500 medium")!) as [PlanStep, PlanStep];
  expect(own).toMatchObject({ own: true, default_m: before.default_m });
  expect(before.removal_m).toBeCloseTo(1.1 * before.default_m, 12); // nobody had measured one here
  expect(own.removal_m - before.default_m).toBeCloseTo(learnt!.mean_m - learnt!.prior.mean_m, 12);
  expect(body.removal_m).toBeCloseTo(usual.removal_m + own.removal_m - before.removal_m, 12);
  await changeShop(ctx, (shop) => ({ ...shop, learntRemoval: { factor: 1.3, u_log: 0.05, n: 3 } }));
  const factored = await sprayed(ctx);
  await storePlan(ctx, await factored.view(), { choice: CHOICE, by, clientKey: null });
  const { steps } = (await factored.view()).state.plan!.body;
  const compound = steps.find((s) => s.name === "Compound")!;
  expect(compound.removal_m).toBeCloseTo(1.3 * compound.default_m, 12); // what is learnt next is held against default_m
  expect(steps.find((s) => s.name === "P1500 medium")!.removal_m).toBeCloseTo(own.removal_m, 12);
});

test("the stand-in gauge at a mark: less after than before, about what the step takes off", async () => {
  const { ctx, panelId, view } = await sprayed();
  await storePlan(ctx, await view(), { choice: CHOICE, by, clientKey: null });
  await completeStep(ctx, await view(), { planId: (await view()).state.plan!.id, index: 0, note: "", by, clientKey: null });
  const mean = async (when: "before" | "after") => {
    ctx.advance(1000);
    const { readings_m } = await readStandInMark(ctx, panelId, when);
    return readings_m.reduce((a, m) => a + m, 0) / readings_m.length;
  };
  const planned = (await view()).state.plan!.body.steps[1]!.removal_m;
  const off = (await mean("before")) - (await mean("after"));
  expect(Math.abs(off - planned)).toBeLessThan(5e-6);
  await expect(readStandInMark(ctx, "nowhere", "before")).rejects.toThrow("no longer there");
});

test("a job file taken into an empty shop gives every figure again, to the last digit", async () => {
  const { ctx, jobId, view } = await sprayed();
  const planId = await storePlan(ctx, await view(), { choice: CHOICE, by, clientKey: null });
  await completeStep(ctx, await view(), { planId, index: 0, note: "", by, clientKey: null });
  await settleCause(ctx, await view(), { kind: "nib", causeId: "boothDust", by });
  const bytes = await sharp({ create: { width: 64, height: 48, channels: 3, background: "#406080" } })
    .jpeg()
    .toBuffer();
  const photoId = await keepPhoto(ctx, { name: "nib.jpg", bytes });
  const panelId = (await view()).panel.id;
  const trace = { as: "area" as const, at: [0.2, 0.4, 0.3].map((x_m, i) => ({ x_m, y_m: 0.2 + 0.1 * i })) };
  await recordEntry(ctx, { panelId, kind: "defect", by, body: { ...nib, photoId, trace } });
  const bundle = (await exportJob(ctx, jobId))!;
  const read = readBundle(JSON.stringify(bundle));
  if (!read.ok) throw new Error(read.problem.reason);
  const empty = await testContext();
  expect(await importJob(empty, read.value)).toEqual({ jobId, otherSettings: false });
  const [here, there] = [await view(), (await loadPanelView(empty, jobId, (await view()).panel.id))!];
  const same = (v: typeof here) => ({ ...v, formKey: "", product: { ...v.product, revision: 0 } });
  expect(same(there)).toEqual(same(here));
  expect(await loadFilmHistory(empty, there)).toEqual(await loadFilmHistory(ctx, here));
  expect(await exportJob(empty, jobId)).toEqual(bundle);
  expect(await getPhoto(empty.db, photoId)).toEqual(await getPhoto(ctx.db, photoId)); // the original too
  await expect(importJob(empty, read.value)).rejects.toThrow("is here already");
});

test("a damaged job file is refused whole, with where and why", async () => {
  const { ctx, jobId } = await sprayed();
  const bundle = (await exportJob(ctx, jobId))!;
  const broken = (change: (b: typeof bundle) => void) => {
    const copy = structuredClone(bundle);
    change(copy);
    const read = readBundle(JSON.stringify(copy));
    return read.ok ? null : `${read.problem.column}: ${read.problem.reason}`;
  };
  expect(broken(() => {})).toBeNull();
  expect(broken((b) => (b.panels[0]!.entries[3]!.id = b.panels[0]!.entries[2]!.id))).toContain("twice");
  expect(broken((b) => (b.products = []))).toContain("product is not in the file");
  expect(broken((b) => ((b.panels[0]!.entries[0]!.body as { phase: string }).phase = "later"))).toContain("entries.0.body.phase");
  expect(broken((b) => (b.panels[0]!.entries[0]!.supersedes = "gone"))).toContain("not in the file");
  expect(broken((b) => Object.assign(b, { version: 2 }))).toContain("version");
  expect([readBundle("").ok, readBundle("{").ok, readBundle("[]").ok]).toEqual([false, false, false]);
});

test("the published schema of the job file is the one the program reads", () => {
  expect(JSON.parse(readFileSync("docs/job-file.schema.json", "utf8"))).toEqual(JSON.parse(JSON.stringify(bundleSchema())));
});

test("next time: results by defects, the last good settings near a temperature, causes that came back", async () => {
  const { ctx, panelId, view } = await sprayed();
  await recordEntry(ctx, { panelId, kind: "climate", by, body: { air_K: 295, part_K: null, relativeHumidity: 0.5 } });
  const [own] = await loadSprayed(ctx);
  expect(resultOf(own!)).toBe("good"); // a nib says nothing of the settings
  const { product } = await view();
  const panels = [
    own!,
    { ...own!, panelId: "b", at_ms: own!.at_ms + 1, defects: ["run" as const], causes: ["tooSoon" as const] },
    { ...own!, panelId: "c", rating: 4.5, causes: ["tooSoon" as const] },
  ];
  expect(panels.map(resultOf)).toEqual(["good", "ran", "peeled"]);
  expect(lastGood(panels, product.id, 297)!.panelId).toBe(panelId);
  expect(lastGood(panels, product.id, 310)).toBeNull();
  expect(lastGood(panels, product.id, null)!.panelId).toBe(panelId);
  expect(lastGood(panels, "another", null)).toBeNull();
  expect(repeatedCauses(panels)).toEqual([{ id: "tooSoon", times: 2 }]);
  const between = await testJob(ctx);
  await recordEntry(ctx, { panelId: between.panelId, kind: "coat", by, body: coatBody(1) });
  expect((await loadSprayed(ctx)).map((p) => p.panelId)).toEqual([panelId]); // a panel between its coats says nothing yet
});

test("a plan made before it is hard, or on matte, is never stored as safe; once it is hard the same plan is", async () => {
  const { ctx, view } = await sprayed();
  const stored = async () => {
    const seen = await view();
    await storePlan(ctx, seen, { choice: { ...CHOICE, schoolId: "polish" }, by, clientKey: null });
    return (await view()).state.plan!.body.verdict;
  };
  const hard = await stored();
  expect(["safe", "caution"]).toContain(hard);
  await recordEntry(ctx, {
    panelId: (await view()).panel.id,
    kind: "climate",
    by,
    body: { air_K: 293.15, part_K: null, relativeHumidity: 0.5, material_K: null },
  });
  await recordEntry(ctx, { panelId: (await view()).panel.id, kind: "coat", by, body: coatBody(3) });
  ctx.advance(3600_000);
  expect(optionSetting(ctx, await view()).cured).toBeLessThan(1);
  expect(await stored()).not.toBe("safe");
});

test("cure towards sanding: by the clock at 20 °C, by the part's own log where there is one, done for a bought panel", async () => {
  const { ctx, panelId, view } = await sprayed();
  expect(optionSetting(ctx, await view()).cured).toBe(1);
  const fresh = await testJob(ctx);
  expect(optionSetting(ctx, (await loadPanelView(ctx, fresh.jobId, fresh.panelId))!).cured).toBe(1);
  await recordEntry(ctx, { panelId, kind: "coat", by, body: coatBody(3) });
  ctx.advance(57600_000 / 4);
  // By whole minutes: within one the same is asked.
  expect(Math.abs(optionSetting(ctx, await view()).cured - 0.25)).toBeLessThanOrEqual(60 / 57600);
  const samples = [0, 600, 1800, 3600].map((at_s) => ({ at_s, part_K: at_s === 0 ? 293 : 333 }));
  await recordEntry(ctx, { panelId, kind: "oven", by, body: { probe: "probe", samples } });
  // A sheet without a bake says nothing of 60 °C: an hour of it counts as one at 30 °C, 2.3 hours, beside the three at 20 °C since.
  expect(optionSetting(ctx, await view()).cured).toBeCloseTo((3 + 2.3) / 16, 1);
});
