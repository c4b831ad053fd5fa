import { sql } from "kysely";
import { changePanel } from "#server/commands/change-brief";
import { archiveJob, saveProduct } from "#server/commands/jobs";
import { exportJob } from "#server/commands/job-bundles";
import { recordEntry, strikeEntry } from "#server/commands/record-entry";
import { deleteJob, forgetJob, takeBackJob } from "#server/commands/remove-job";
import { run } from "#server/commands/run";
import { listClocks } from "#server/repos/clock-repo";
import { getJob, listJobs } from "#server/repos/job-repo";
import { insertPhoto } from "#server/repos/photo-repo";
import { listEntries } from "#server/repos/ledger-repo";
import { listRemovedJobs } from "#server/repos/removed-job-repo";
import { coatBody, readingBody, sheet, testContext, testJob } from "#server/testing/fixtures";
import { loadPanelView } from "#server/views/panel-view";
import { loadPots } from "#server/views/pots-view";

const by = "painter A";
let ctx: Awaited<ReturnType<typeof testContext>>;
beforeEach(async () => {
  ctx = await testContext();
});
afterEach(() => ctx.db.destroy());

async function worked() {
  const { jobId, panelId } = await testJob(ctx);
  await recordEntry(ctx, { panelId, kind: "reading", body: readingBody("before", "1", 90), by });
  const coat = await recordEntry(ctx, { panelId, kind: "coat", body: coatBody(1), by });
  await recordEntry(ctx, { panelId, kind: "coat", body: coatBody(2), by });
  await strikeEntry(ctx, coat, { by, reason: "" });
  return { jobId, panelId };
}

test("a deleted job is gone with all its rows, its file is kept, and taken back in it is the same", async () => {
  const { jobId, panelId } = await worked();
  const other = await testJob(ctx);
  await recordEntry(ctx, { panelId: other.panelId, kind: "coat", body: coatBody(1), by });
  const before = await exportJob(ctx, jobId);
  const film = (await loadPanelView(ctx, jobId, panelId))!.state.film;
  await archiveJob(ctx, jobId, true);
  await deleteJob(ctx, { jobId, by });
  expect(await getJob(ctx.db, jobId)).toBeNull();
  expect(await loadPanelView(ctx, jobId, panelId)).toBeNull();
  for (const table of ["panel", "clock", "ledger_entry", "panel_summary"]) {
    const column = table === "panel" ? "id" : "panel_id";
    const { rows } = await sql<{ n: number }>`select count(*) as n from ${sql.ref(table)} where ${sql.ref(column)} = ${panelId}`.execute(
      ctx.db,
    );
    expect([table, Number(rows[0]!.n)]).toEqual([table, 0]);
  }
  expect(await listRemovedJobs(ctx.db)).toEqual([{ jobId, vehicle: "Test estate", removedAt_ms: ctx.now_ms(), by }]);
  expect(await listEntries(ctx.db, other.panelId)).toHaveLength(1);

  await takeBackJob(ctx, jobId);
  expect(await exportJob(ctx, jobId)).toEqual(before);
  expect((await loadPanelView(ctx, jobId, panelId))!.state.film).toEqual(film);
  expect(await listRemovedJobs(ctx.db)).toEqual([]);
  await expect(sql`delete from ledger_entry`.execute(ctx.db)).rejects.toThrow("append-only");
});

test("a job on the floor, one that is not there and one with entries of another version are not deleted", async () => {
  const { jobId, panelId } = await worked();
  await expect(deleteJob(ctx, { jobId, by })).rejects.toThrow("Put the job away first");
  await expect(deleteJob(ctx, { jobId: "none", by })).rejects.toMatchObject({ status: 404 });
  await archiveJob(ctx, jobId, true);
  await sql`insert into ledger_entry (id, panel_id, kind, body_json, at_ms, recorded_at_ms, by_role, simulated, seq)
    values ('strange', ${panelId}, 'of tomorrow', '{}', 0, 0, 'x', 0, 900)`.execute(ctx.db);
  await expect(deleteJob(ctx, { jobId, by })).rejects.toThrow("entries of another version");
  expect(await listEntries(ctx.db, panelId)).toHaveLength(4);
});

test("the file can be let go too; then nothing is left to take back", async () => {
  const { jobId } = await worked();
  await archiveJob(ctx, jobId, true);
  await deleteJob(ctx, { jobId, by });
  await forgetJob(ctx, jobId);
  await expect(takeBackJob(ctx, jobId)).rejects.toMatchObject({ status: 404 });
  await expect(forgetJob(ctx, jobId)).rejects.toMatchObject({ status: 404 });
  expect(await listJobs(ctx.db, { archived: true })).toEqual([]);
});

test("a picture of an entry that was undone goes with its job; one that something else shows stays", async () => {
  const { jobId, panelId } = await worked();
  const other = await testJob(ctx);
  const picture = async (id: string) =>
    run(ctx, null, ({ db }) =>
      insertPhoto(db, {
        id,
        mime: "image/jpeg",
        bytes: new Uint8Array([1]),
        width: 1,
        height: 1,
        name: id,
        original: null,
        digest: null,
        now_ms: ctx.now_ms(),
      }),
    );
  for (const id of ["undone", "shared", "shown"]) await picture(id);
  const nib = (onPanel: string, photoId: string) =>
    recordEntry(ctx, {
      panelId: onPanel,
      kind: "defect",
      body: { kind: "nib", at: { x_m: 0.5, y_m: 0.4 }, length_m: null, width_m: null, height_m: null, measured: false, photoId },
      by,
    });
  await strikeEntry(ctx, await nib(panelId, "undone"), { by, reason: "undo" });
  await nib(panelId, "shared");
  await nib(panelId, "shown");
  await nib(other.panelId, "shared");
  await archiveJob(ctx, jobId, true);
  await deleteJob(ctx, { jobId, by });
  await forgetJob(ctx, jobId);
  const left = await ctx.db.selectFrom("photo").select("id").orderBy("id").execute();
  expect(left.map((p) => p.id)).toEqual(["shared"]);
});

test("a deleted job brings its pots' clocks back with it; one that was stirred goes on settling, one taken out stays out", async () => {
  const { jobId, panelId } = await testJob(ctx);
  const mix = { volume_m3: 3e-4, reducer: 0, potLife_s: 3 * 3600 };
  await recordEntry(ctx, { panelId, kind: "mix", body: { ...mix, settles_s: 720 }, by });
  const out = await recordEntry(ctx, { panelId, kind: "mix", body: mix, by });
  await strikeEntry(ctx, out, { by, reason: "" });
  const said = async () => (await listClocks(ctx.db, ctx.now_ms())).map(({ kind, label, due_ms }) => ({ kind, label, due_ms }));
  const before = await said();
  expect(before.map((c) => c.kind)).toEqual(["pot", "stir"]);
  await archiveJob(ctx, jobId, true);
  await deleteJob(ctx, { jobId, by });
  await takeBackJob(ctx, jobId);
  await archiveJob(ctx, jobId, false);
  expect(await said()).toEqual(before);
});

test("a panel sprayed with another product: the pots that were mixed stay what they are, on the strip, among the pots, for the coats out of them", async () => {
  const { jobId, panelId } = await testJob(ctx);
  const first = (await loadPanelView(ctx, jobId, panelId))!;
  const potId = await recordEntry(ctx, { panelId, kind: "mix", body: { volume_m3: 3e-4, reducer: 0, potLife_s: 3 * 3600 }, by });
  await recordEntry(ctx, { panelId, kind: "coat", body: { ...coatBody(1), potId, volume_m3: 1e-4 }, by });
  const pots = async () => (await loadPots(ctx, jobId))!.pots.map((p) => [p.product, p.taken.length, Math.round(1e6 * p.left_m3)]);
  const before = [await pots(), (await listClocks(ctx.db, ctx.now_ms())).map((c) => c.label)];
  expect(before[0]).toEqual([[first.product.sheet.name, 1, 200]]);
  const other = await saveProduct(ctx, { ...sheet, name: "Another clear" });
  await changePanel(ctx, panelId, { ...first.panel, productRevisionId: other.revisionId }, { by });
  expect([await pots(), (await listClocks(ctx.db, ctx.now_ms())).map((c) => c.label)]).toEqual(before);
  // What is in the gun of it is none of the new one's.
  expect((await loadPanelView(ctx, jobId, panelId))!.state.pots).toEqual([]);
});
