import { livingEntries } from "#core/record/timeline";
import { panelShape } from "#core/kernel/geometry/shapes";
import { changeJob, changePanel, copyJob } from "#server/commands/change-brief";
import { recordEntry } from "#server/commands/record-entry";
import type { ServerContext } from "#server/context";
import { getJob } from "#server/repos/job-repo";
import { listEntries } from "#server/repos/ledger-repo";
import { getPanel, listPanels } from "#server/repos/panel-repo";
import { loadPanelView } from "#server/views/panel-view";
import { coatBody, readingBody, testContext, testJob } from "#server/testing/fixtures";

let ctx: ServerContext;
beforeEach(async () => {
  ctx = await testContext();
});
afterEach(() => ctx.db.destroy());
const by = "painter A";
const notes = async (panelId: string) =>
  livingEntries(await listEntries(ctx.db, panelId)).flatMap((e) => (e.kind === "note" ? [e.body.text] : []));

test("a panel is put right: figures follow, and the ledger says what was changed and by whom", async () => {
  const { jobId, panelId } = await testJob(ctx);
  await recordEntry(ctx, { panelId, kind: "coat", body: coatBody(1), by });
  const before = (await getPanel(ctx.db, panelId))!;
  expect(await changePanel(ctx, panelId, before, { by })).toBe(false);
  expect(
    await changePanel(ctx, panelId, { ...before, name: "Left wing", tilt_rad: Math.PI / 2, coatsPlanned: 4 }, { by: "painter B" }),
  ).toBe(true);
  const view = (await loadPanelView(ctx, jobId, panelId))!;
  expect(view.panel).toMatchObject({ name: "Left wing", tilt_rad: Math.PI / 2, coatsPlanned: 4, shape: before.shape });
  expect(await notes(panelId)).toEqual([expect.stringMatching(/^Panel changed\. name: .* → Left wing; hangs: .* → 90°; coats: .* → 4$/)]);
});

test("an outline may change while nothing is placed on it, and then stays", async () => {
  const { panelId } = await testJob(ctx);
  const before = (await getPanel(ctx.db, panelId))!;
  const door = { ...before, shape: panelShape("door", { width_m: 1.1, height_m: 0.7 }) };
  expect(await changePanel(ctx, panelId, door, { by })).toBe(true);
  expect((await getPanel(ctx.db, panelId))!.shape.kind).toBe("door");
  await recordEntry(ctx, { panelId, kind: "reading", body: readingBody("after", "1", 131), by });
  await expect(changePanel(ctx, panelId, before, { by })).rejects.toMatchObject({ field: "shape" });
  expect((await getPanel(ctx.db, panelId))!.shape.kind).toBe("door");
});

test("a job's vehicle, colour, way and finish are put right on all of its panels", async () => {
  const { jobId, panelId } = await testJob(ctx);
  const brief = { vehicle: "Lodos estate", colourName: "teal", colourCss: "#123456", finish: "flat", wayId: "three-flat" } as const;
  expect(await changeJob(ctx, jobId, brief, { by })).toBe(true);
  const { wayId, ...rest } = brief;
  expect(await getJob(ctx.db, jobId)).toMatchObject({ ...rest, way: { id: wayId } });
  expect(await notes(panelId)).toEqual([expect.stringContaining("Lodos estate")]);
  await expect(changeJob(ctx, "gone", brief, { by })).rejects.toMatchObject({ status: 404 });
});

test("a job is copied with its panels and without what was logged", async () => {
  const { jobId, panelId } = await testJob(ctx);
  await recordEntry(ctx, { panelId, kind: "coat", body: coatBody(1), by });
  const made = await copyJob(ctx, jobId);
  expect((await getJob(ctx.db, made.jobId))!.vehicle).toBe(`${(await getJob(ctx.db, jobId))!.vehicle}, again`);
  const [copy] = await listPanels(ctx.db, made.jobId);
  expect(copy).toMatchObject({ ...(await getPanel(ctx.db, panelId))!, id: made.panelId, jobId: made.jobId });
  expect(await listEntries(ctx.db, made.panelId)).toEqual([]);
});
