import { sql } from "kysely";
import { panelShape } from "#core/kernel/geometry/shapes";
import { listEntries } from "#server/repos/ledger-repo";
import { listPanels } from "#server/repos/panel-repo";
import { listRemovedPanels } from "#server/repos/removed-panel-repo";
import { coatBody, readingBody, testContext, testJob } from "#server/testing/fixtures";
import { loadPanelView } from "#server/views/panel-view";
import { loadPots } from "#server/views/pots-view";
import { exportJob } from "./job-bundles";
import { addPanel, archiveJob } from "./jobs";
import { moveEntry } from "./move-entry";
import { recordEntry } from "./record-entry";
import { deleteJob, forgetJob, takeBackJob } from "./remove-job";
import { forgetPanel, removePanel, takeBackPanel } from "./remove-panel";

const by = "painter A";
const pot = { volume_m3: 3e-4, reducer: 0, potLife_s: 5400, mattingShare: null, settles_s: null };

/** A bonnet, and a door that was added twice: all of one outline but the wing. */
async function threePanels() {
  const ctx = await testContext();
  const { jobId, panelId: bonnet, revisionId } = await testJob(ctx);
  const add = (name: string, width_m: number) =>
    addPanel(ctx, jobId, {
      name,
      shape: panelShape("door", { width_m, height_m: 0.7 }),
      tilt_rad: Math.PI / 2,
      substrate: "refinish",
      productRevisionId: revisionId,
      coatsPlanned: 2,
    });
  const [door, again, wide] = [await add("Door", 1.1), await add("Door 2", 1.1), await add("Wide door", 1.3)];
  return { ctx, jobId, bonnet, door, again, wide };
}
const look = async (t: Awaited<ReturnType<typeof threePanels>>, id: string) => (await loadPanelView(t.ctx, t.jobId, id))!;

describe("a panel added by mistake", () => {
  test("goes with its ledger and out of every list, is kept, and comes back as it was", async () => {
    const t = await threePanels();
    const { ctx, jobId, again } = t;
    await recordEntry(ctx, { panelId: again, kind: "reading", body: readingBody("before", "1", 92), by });
    await recordEntry(ctx, { panelId: again, kind: "coat", body: coatBody(1), by });
    const before = await exportJob(ctx, jobId, again);
    const film = (await look(t, again)).state.film;
    expect(await removePanel(ctx, { jobId, panelId: again, by })).toBe("Door 2");
    expect((await listPanels(ctx.db, jobId)).map((p) => p.name)).toEqual(["Bonnet", "Door", "Wide door"]);
    expect(await loadPanelView(ctx, jobId, again)).toBeNull();
    for (const table of ["clock", "ledger_entry", "panel_summary"]) {
      const { rows } = await sql<{ n: number }>`select count(*) as n from ${sql.ref(table)} where panel_id = ${again}`.execute(ctx.db);
      expect([table, Number(rows[0]!.n)]).toEqual([table, 0]);
    }
    expect((await listRemovedPanels(ctx.db, jobId)).map((r) => [r.panelId, r.name, r.by])).toEqual([[again, "Door 2", by]]);
    await takeBackPanel(ctx, { jobId, panelId: again });
    expect(await exportJob(ctx, jobId, again)).toEqual(before);
    expect((await look(t, again)).state.film).toEqual(film);
    expect(await listRemovedPanels(ctx.db, jobId)).toEqual([]);
    await expect(sql`delete from ledger_entry`.execute(ctx.db)).rejects.toThrow("append-only");
  });

  test("is refused where it is the only one, or where others are sprayed from a pot that was mixed on it", async () => {
    const t = await threePanels();
    const { ctx, jobId, bonnet, door, again, wide } = t;
    const mixed = await recordEntry(ctx, { panelId: again, kind: "mix", body: { ...pot, panels: [again, door] }, by });
    await expect(removePanel(ctx, { jobId, panelId: again, by })).rejects.toThrow("move that mix to one of them first");
    await moveEntry(ctx, { panelId: again, entryId: mixed, toPanelId: door, body: {}, at_ms: ctx.now_ms(), by });
    for (const panelId of [again, wide, bonnet]) await removePanel(ctx, { jobId, panelId, by });
    await expect(removePanel(ctx, { jobId, panelId: door, by })).rejects.toThrow("only panel of this job");
  });

  test("let go it is gone for good; a job that is deleted and restored has it still, and one let go takes it along", async () => {
    const { ctx, jobId, again, wide } = await threePanels();
    for (const panelId of [again, wide]) await removePanel(ctx, { jobId, panelId, by });
    await forgetPanel(ctx, { jobId, panelId: again });
    await expect(takeBackPanel(ctx, { jobId, panelId: again })).rejects.toThrow("No file is kept");
    await archiveJob(ctx, jobId, true);
    await deleteJob(ctx, { jobId, by });
    await takeBackJob(ctx, jobId);
    expect((await listRemovedPanels(ctx.db, jobId)).map((r) => r.panelId)).toEqual([wide]);
    await archiveJob(ctx, jobId, true);
    await deleteJob(ctx, { jobId, by });
    await forgetJob(ctx, jobId);
    expect(await listRemovedPanels(ctx.db, jobId)).toEqual([]);
  });
});

describe("an entry logged on the wrong panel", () => {
  test("moved, it stands there as if it had been entered there, and counts here no more; a second window is told", async () => {
    const t = await threePanels();
    const { ctx, door, again } = t;
    await recordEntry(ctx, { panelId: again, kind: "coat", body: coatBody(1), by });
    const entryId = await recordEntry(ctx, { panelId: door, kind: "coat", body: coatBody(1), by });
    const move = { panelId: door, entryId, toPanelId: again, body: {}, at_ms: ctx.now_ms(), by };
    await moveEntry(ctx, move);
    expect((await look(t, door)).state.coats).toHaveLength(0);
    const coats = (await look(t, again)).state.coats.map((c) => c.entry);
    expect(coats.map((c) => [c.body.number, c.at_ms])).toEqual([
      [1, expect.any(Number)],
      [2, move.at_ms],
    ]);
    expect((await listEntries(ctx.db, door)).at(-1)).toMatchObject({ kind: "strike", body: { reason: "belongs to Door 2" } });
    await expect(moveEntry(ctx, move)).rejects.toThrow("taken out meanwhile");
  });

  test("a pot names its new panel; a reading keeps its spot where the outline is the same, and is refused where it is another", async () => {
    const t = await threePanels();
    const { ctx, jobId, door, again, wide } = t;
    const mix = await recordEntry(ctx, { panelId: door, kind: "mix", body: { ...pot, panels: [door] }, by });
    await moveEntry(ctx, { panelId: door, entryId: mix, toPanelId: again, body: {}, at_ms: ctx.now_ms(), by });
    expect((await loadPots(ctx, jobId))!.pots.map((p) => p.panels)).toEqual([["Door 2"]]);
    const read = await recordEntry(ctx, { panelId: door, kind: "reading", body: readingBody("before", "1", 92), by });
    const as = { panelId: door, entryId: read, body: {}, at_ms: ctx.now_ms(), by };
    await expect(moveEntry(ctx, { ...as, toPanelId: wide })).rejects.toThrow("Wide door has another outline");
    await moveEntry(ctx, { ...as, toPanelId: again });
    expect((await look(t, again)).state.spots.map((s) => s.films.before?.readings_m)).toEqual([[expect.closeTo(92e-6, 9)]]);
    expect((await look(t, door)).state.spots.filter((s) => s.films.before)).toEqual([]);
  });

  test("is refused on a panel of another job, and where a later coat is on already; nothing is stored then", async () => {
    const t = await threePanels();
    const { ctx, door, again } = t;
    const other = await testJob(ctx);
    const entryId = await recordEntry(ctx, { panelId: door, kind: "coat", body: coatBody(1), by });
    const at_ms = ctx.now_ms();
    const as = { panelId: door, entryId, body: {}, at_ms, by };
    await expect(moveEntry(ctx, { ...as, toPanelId: other.panelId })).rejects.toThrow("not of this job");
    ctx.advance(600_000);
    await recordEntry(ctx, { panelId: again, kind: "coat", body: coatBody(1), by });
    await expect(moveEntry(ctx, { ...as, toPanelId: again })).rejects.toThrow("already ended later");
    expect((await look(t, door)).state.coats).toHaveLength(1);
    expect((await look(t, again)).state.coats).toHaveLength(1);
  });
});
