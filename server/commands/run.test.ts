import type { Change } from "#server/events/bus";
import { houseVersion, saveHouse, changeShop } from "#server/commands/house";
import { changeJob, changePanel, copyJob, jobVersion, panelVersion } from "#server/commands/change-brief";
import { logCoat } from "#server/commands/booth";
import { addPanel, saveProduct } from "#server/commands/jobs";
import { ChangedMeanwhile } from "#server/commands/refusal";
import { run } from "#server/commands/run";
import { countJobs, getJob } from "#server/repos/job-repo";
import { listEntries } from "#server/repos/ledger-repo";
import { getPanel, listPanels } from "#server/repos/panel-repo";
import { newestRevision } from "#server/repos/product-repo";
import { getShop } from "#server/repos/shop-repo";
import { coatBody, sheet, testContext, testJob } from "#server/testing/fixtures";
import { loadPanelView } from "#server/views/panel-view";

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

test("the second window on a job, a panel, the house, a sheet is told what stands there and overwrites nothing", async () => {
  const { jobId, panelId, productId, revisionId } = await testJob(ctx);
  const job = (await getJob(ctx.db, jobId))!;
  const panel = (await getPanel(ctx.db, panelId))!;
  const shop = await getShop(ctx.db);
  const seen = { job: jobVersion(job), panel: panelVersion(panel), shop: houseVersion(shop) };
  const brief = (vehicle: string) => ({ ...job, vehicle, wayId: job.way.id });
  const house = (name: string) => ({ ...shop, name });
  const first: (() => Promise<unknown>)[] = [
    () => changeJob(ctx, jobId, brief("first"), { by, expected: seen.job }),
    () => changePanel(ctx, panelId, { ...panel, name: "first" }, { by, expected: seen.panel }),
    () => saveHouse(ctx, house("first"), seen.shop),
    () => saveProduct(ctx, { ...sheet, name: "first" }, productId, null, revisionId),
  ];
  const second: (() => Promise<unknown>)[] = [
    () => changeJob(ctx, jobId, brief("second"), { by, expected: seen.job }),
    () => changePanel(ctx, panelId, { ...panel, name: "second" }, { by, expected: seen.panel }),
    () => saveHouse(ctx, house("second"), seen.shop),
    () => saveProduct(ctx, { ...sheet, name: "second" }, productId, null, revisionId),
  ];
  const there = async () => [
    (await getJob(ctx.db, jobId))!.vehicle,
    (await getPanel(ctx.db, panelId))!.name,
    (await getShop(ctx.db)).name,
    (await newestRevision(ctx.db, productId))!.sheet.name,
  ];
  for (const save of first) await save();
  for (const save of second) {
    const refused = await save().then(
      () => null,
      (error: unknown) => error,
    );
    expect(refused).toBeInstanceOf(ChangedMeanwhile);
    expect(JSON.stringify((refused as ChangedMeanwhile).there)).toContain("first");
  }
  expect(await there()).toEqual(["first", "first", "first", "first"]);
  // Upon the version it was told, the second is stored.
  const told = async (save: () => Promise<unknown>) => ((await save().catch((e: unknown) => e)) as ChangedMeanwhile).version;
  await changeJob(ctx, jobId, brief("second"), { by, expected: await told(second[0]!) });
  await changePanel(ctx, panelId, { ...panel, name: "second" }, { by, expected: await told(second[1]!) });
  await saveHouse(ctx, house("second"), await told(second[2]!));
  await saveProduct(ctx, { ...sheet, name: "second" }, productId, null, await told(second[3]!));
  expect(await there()).toEqual(["second", "second", "second", "second"]);
});

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
