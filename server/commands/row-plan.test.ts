import { coatsAsked } from "#core/coat/asked";
import { litresToCome } from "#core/coat/litres";
import { pathNow } from "#core/coat/path-ahead";
import { USUAL_ROWS } from "#core/models/spray/row-plan";
import { copyJob } from "#server/commands/change-brief";
import { exportJob, importJob } from "#server/commands/job-bundles";
import { rowsVersion, takePath } from "#server/commands/row-plan";
import type { ServerContext } from "#server/context";
import { listEntries } from "#server/repos/ledger-repo";
import { getPanel, listPanels } from "#server/repos/panel-repo";
import { loadBooth } from "#server/views/booth-view";
import { loadPanelView } from "#server/views/panel-view";
import { testContext, testJob } from "#server/testing/fixtures";

let ctx: ServerContext;
beforeEach(async () => {
  ctx = await testContext();
});
afterEach(() => ctx.db.destroy());
const ROWS = { ...USUAL_ROWS, even: true, endsFirst: true, overrun_m: 0.15 };
const viewOf = async (ids: { jobId: string; panelId: string }) => (await loadPanelView(ctx, ids.jobId, ids.panelId))!;
const takenAs = (over: object = {}) => ({
  rows: ROWS,
  overlap: 0.6,
  handSpeed_m_s: 0.4,
  by: "painter A",
  clientKey: null,
  said: "Path taken.",
  ...over,
});

test("a path taken stands for the panel, its gun for the coats to come, and their litres follow; sent twice it is taken once", async () => {
  const ids = await testJob(ctx);
  const before = await viewOf(ids);
  const usual = litresToCome(coatsAsked(before, ctx.now_ms()));
  for (let twice = 0; twice < 2; twice++) await takePath(ctx, before, takenAs({ clientKey: "k" }));
  const view = await viewOf(ids);
  expect(pathNow(coatsAsked(view, ctx.now_ms()))).toEqual({ rows: ROWS, overlap: 0.6, handSpeed_m_s: 0.4 });
  expect(litresToCome(coatsAsked(view, ctx.now_ms())).toMix_m3).toBeGreaterThan(1.05 * usual.toMix_m3);
  expect((await listEntries(ctx.db, ids.panelId)).filter((e) => e.kind === "note")).toHaveLength(1);
  // Booth view goes along them; of rows that nobody planned it says nothing.
  const path = (await loadBooth(ctx, ids.jobId))!.panels[0]!.path!;
  expect(path.handSpeed_m_s).toBeCloseTo(0.4, 9);
  expect(path.passes.slice(0, 2).map((p) => p.turned)).toEqual([true, true]); // along both ends first
  const other = await testJob(ctx);
  expect((await loadBooth(ctx, other.jobId))!.panels[0]!.path).toBeNull();
  // The same hand again sets no gun.
  await takePath(ctx, view, takenAs({ rows: USUAL_ROWS }));
  expect((await listEntries(ctx.db, ids.panelId)).filter((e) => e.kind === "gunSet")).toHaveLength(1);
});

test("one that was planned on what stood there before is refused, and changes nothing", async () => {
  const ids = await testJob(ctx);
  const view = await viewOf(ids);
  const expected = rowsVersion(view.panel);
  await takePath(ctx, view, takenAs({ expected }));
  await expect(takePath(ctx, view, takenAs({ expected, rows: USUAL_ROWS }))).rejects.toMatchObject({ there: ROWS });
  expect((await getPanel(ctx.db, ids.panelId))!.rows).toEqual(ROWS);
});

test("rows go with a job that is copied and with its file", async () => {
  const ids = await testJob(ctx);
  await takePath(ctx, await viewOf(ids), takenAs());
  const bundle = (await exportJob(ctx, ids.jobId))!;
  expect(bundle.panels[0]!.rows).toEqual(ROWS);
  const elsewhere = await testContext();
  const taken = await importJob(elsewhere, bundle);
  expect((await listPanels(elsewhere.db, taken.jobId))[0]!.rows).toEqual(ROWS);
  await elsewhere.db.destroy();
  const copy = await copyJob(ctx, ids.jobId);
  expect((await getPanel(ctx.db, copy.panelId))!.rows).toEqual(ROWS);
});
