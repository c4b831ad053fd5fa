import type { Change } from "#server/events/bus";
import { houseVersion, saveHouse, changeShop } from "#server/commands/house";
import { changeJob, copyJob } from "#server/commands/change-brief";
import { logCoat } from "#server/commands/booth";
import { addPanel } from "#server/commands/jobs";
import { run } from "#server/commands/run";
import { countJobs, getJob } from "#server/repos/job-repo";
import { listEntries } from "#server/repos/ledger-repo";
import { listPanels } from "#server/repos/panel-repo";
import { getShop } from "#server/repos/shop-repo";
import { coatBody, testContext, testJob } from "#server/testing/fixtures";
import { loadPanelView } from "#server/views/panel-view";
import { panelOr404 } from "~/kit/http/panel.server";

const by = "painter A";
let ctx: Awaited<ReturnType<typeof testContext>>;
beforeEach(async () => {
  ctx = await testContext();
});
afterEach(() => ctx.db.destroy());

test("a command that fails half way has written nothing and told nobody; sent again with its key it is carried out and told once", async () => {
  const told: Change[] = [];
  ctx.bus.subscribe((c) => told.push(c));
  const { jobId } = await testJob(ctx);
  told.length = 0;
  const before = await listPanels(ctx.db, jobId);
  const form = { key: "k", what: "test", content: {} };
  const command = (fails: boolean) =>
    run(ctx, form, async ({ db, tell }) => {
      tell({ topic: "job", id: jobId });
      tell({ topic: "job", id: jobId });
      await db.updateTable("panel").set({ name: "changed" }).where("job_id", "=", jobId).execute();
      if (fails) throw new Error("power cut");
      return "done";
    });
  await expect(command(true)).rejects.toThrow("power cut");
  expect(told).toEqual([]);
  expect(await listPanels(ctx.db, jobId)).toEqual(before);
  expect(await command(false)).toBe("done");
  expect(await command(true)).toBe("done"); // its key is known: nothing is carried out again
  expect(told).toEqual([{ topic: "job", id: jobId }]);
});

test("what pages share of a state is forgotten with every command, also one that tells nobody; one that failed changes nothing of it", async () => {
  const { jobId } = await testJob(ctx);
  const look = () => ctx.reads.read("panels", 0, async () => (await listPanels(ctx.db, jobId)).map((p) => p.name).join());
  const before = await look();
  const rename = (to: string, fails = false) =>
    run(ctx, null, async ({ db }) => {
      await db.updateTable("panel").set({ name: to }).where("job_id", "=", jobId).execute();
      if (fails) throw new Error("power cut");
    });
  await expect(rename("cut", true)).rejects.toThrow("power cut");
  expect(await look()).toBe(before);
  await rename("whole");
  expect(await look()).toBe("whole");
});

test("two windows that look in the same second have forms of their own: what each of them logs is another coat", async () => {
  const { jobId, panelId } = await testJob(ctx);
  const views = await Promise.all([panelOr404(ctx, jobId, panelId), panelOr404(ctx, jobId, panelId)]);
  expect(views[0].state).toBe(views[1].state);
  expect(views[0].formKey).not.toBe(views[1].formKey);
});

test("a job changed on many panels is changed on all of them or on none", async () => {
  const { jobId, revisionId } = await testJob(ctx);
  const [first] = await listPanels(ctx.db, jobId);
  for (let i = 0; i < 9; i++) await addPanel(ctx, jobId, { ...first!, name: `Panel ${i}`, productRevisionId: revisionId });
  const panels = await listPanels(ctx.db, jobId);
  const change = { vehicle: "Meltem roadster", colourName: "red", colourCss: "#aa0000", finish: "flat", wayId: "two-full" } as const;
  // Cut off at each panel in turn, as a kill would.
  for (let at = 1; at <= panels.length; at++) {
    let ids = 0;
    const cut = { ...ctx, newId: () => (++ids === at ? fail() : `cut-${at}-${ids}`) };
    await expect(changeJob(cut, jobId, change, { by })).rejects.toThrow("cut off");
    expect((await getJob(ctx.db, jobId))!.vehicle).toBe("Test estate");
    for (const p of panels) expect(await listEntries(ctx.db, p.id)).toEqual([]);
  }
  expect(await changeJob(ctx, jobId, change, { by })).toBe(true);
  for (const p of panels) expect(await listEntries(ctx.db, p.id)).toHaveLength(1);
});
function fail(): never {
  throw new Error("cut off");
}

test("what one window learns and another saves beside it both stands", async () => {
  const seen = houseVersion(await getShop(ctx.db));
  const learntFilm = { factor: 1.1, u_log: 0.1, n: 4 };
  await changeShop(ctx, (shop) => ({ ...shop, learntFilm }));
  await saveHouse(ctx, { ...(await getShop(ctx.db)), name: "Quay Nine Refinish" }, seen);
  expect(await getShop(ctx.db)).toMatchObject({ name: "Quay Nine Refinish", learntFilm });
});

test("two windows that both log coat 1 are asked; one that tells its form again is not", async () => {
  const { jobId, panelId } = await testJob(ctx);
  const view = async () => (await loadPanelView(ctx, jobId, panelId))!;
  const stale = await view();
  const log = async (v: typeof stale, shown: number, clientKey: string) => logCoat(ctx, v, { body: coatBody(shown), by, clientKey, shown });
  const id = await log(stale, 1, "window one");
  expect(await log(await view(), 1, "window one")).toBe(id);
  await expect(log(await view(), 1, "window two")).rejects.toThrow("Coat 1 was logged already, from another window");
  await expect(log(stale, 1, "window three")).rejects.toThrow("changed in another window");
  expect((await view()).state.coats).toHaveLength(1);
  await log(await view(), 2, "window two again");
  expect((await view()).state.coats).toHaveLength(2);
});

test("copy tapped twice makes one job", async () => {
  const { jobId } = await testJob(ctx);
  const [a, b] = await Promise.all([copyJob(ctx, jobId, "one press"), copyJob(ctx, jobId, "one press")]);
  expect(a).toEqual(b);
  expect(await countJobs(ctx.db)).toBe(2);
});
