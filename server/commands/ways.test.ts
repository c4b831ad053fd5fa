import { houseWay } from "#core/models/ways/house-ways";
import { houseWayBody } from "#core/models/ways/way-body";
import { readBundle } from "#server/interchange/job-bundle";
import { getJob } from "#server/repos/job-repo";
import { listWays } from "#server/repos/way-repo";
import { testContext, testJob } from "#server/testing/fixtures";
import { loadPanelView } from "#server/views/panel-view";
import { copyJob } from "./change-brief";
import { exportJob, importJob } from "./job-bundles";
import { setHouseWay } from "./jobs";
import { archiveWay, saveWay } from "./ways";

let ctx: Awaited<ReturnType<typeof testContext>>;
beforeEach(async () => {
  ctx = await testContext();
});
afterEach(() => ctx.db.destroy());

const slow = houseWayBody.parse({
  ...houseWay("two-full"),
  name: "Ours, slow",
  coats: [1, 2, 3].map(() => ({ role: "full wet", speedFactor: 0.9, flashFactor: 2 })),
});
const keep = (over: Partial<Parameters<typeof saveWay>[1]> = {}) =>
  saveWay(ctx, { id: null, version: null, body: slow, clientKey: null, ...over });

test("a way of the shop's own stands first in the lists; sent twice it is kept once", async () => {
  const id = await keep({ clientKey: "k" });
  expect(await keep({ clientKey: "k" })).toBe(id);
  const [first] = await listWays(ctx.db);
  expect(first).toMatchObject({ id, name: "Ours, slow", source: "house-way" });
});

test("two ways never have one name, small letters or large", async () => {
  await keep();
  await expect(keep({ body: { ...slow, name: "OURS, SLOW" } })).rejects.toMatchObject({ field: "name" });
  await expect(keep({ body: { ...slow, name: "two full wet" } })).rejects.toMatchObject({ field: "name" });
});

test("a job keeps the way as it was when it took it, through changes in House, copies and its file", async () => {
  const { jobId, panelId } = await testJob(ctx);
  const id = await keep();
  await setHouseWay(ctx, { jobId, panelId, wayId: id });
  await keep({ id, version: "1", body: { ...slow, coats: slow.coats.slice(0, 1) } });
  await archiveWay(ctx, id, true);
  const view = (await loadPanelView(ctx, jobId, panelId))!;
  expect(view.job.way).toEqual({ ...slow, id, source: "house-way" });
  expect(view.panel.coatsPlanned).toBe(3);
  const copy = await copyJob(ctx, jobId);
  expect((await getJob(ctx.db, copy.jobId))!.way).toEqual(view.job.way);
  const file = readBundle(JSON.stringify(await exportJob(ctx, jobId)));
  const other = await testContext();
  const taken = await importJob(other, (file as { value: Parameters<typeof importJob>[1] }).value);
  expect((await getJob(other.db, taken.jobId))!.way).toEqual(view.job.way);
  await other.db.destroy();
  await expect(setHouseWay(ctx, { jobId: copy.jobId, panelId: copy.panelId, wayId: "nobody's" })).rejects.toMatchObject({ field: "wayId" });
});
