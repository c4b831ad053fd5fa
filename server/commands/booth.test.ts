import { startCoat, stopCoat } from "#server/commands/booth";
import { recordEntry, strikeEntry } from "#server/commands/record-entry";
import { listClocks } from "#server/repos/clock-repo";
import { listEntries } from "#server/repos/ledger-repo";
import { coatBody, testContext, testJob } from "#server/testing/fixtures";
import { loadBooth } from "#server/views/booth-view";
import { loadPanelView } from "#server/views/panel-view";

const MINUTE_MS = 60_000;
let ctx: Awaited<ReturnType<typeof testContext>>;
let ids: { jobId: string; panelId: string };
beforeEach(async () => {
  ctx = await testContext();
  ids = await testJob(ctx);
});
afterEach(async () => {
  await ctx.db.destroy();
});
const input = (number: number, clientKey: string) => ({ ...ids, number, by: "painter A", clientKey });
const panel = async () => (await loadBooth(ctx, ids.jobId))!.panels[0]!;

test("a coat is started, shown as running, stopped, and its flash runs from the stop", async () => {
  await startCoat(ctx, input(1, "s1"));
  expect((await panel()).spraying).toEqual({ number: 1, since_ms: ctx.now_ms() });
  ctx.advance(4 * MINUTE_MS);
  await stopCoat(ctx, input(1, "e1"));
  expect(await panel()).toMatchObject({ coats: 1, spraying: null, flash: { due_ms: ctx.now_ms() + 600_000 } });
  const coat = (await listEntries(ctx.db, ids.panelId)).find((e) => e.kind === "coat")!;
  expect(coat.body).toMatchObject({ number: 1, duration_s: 240, role: "full wet" });
  expect(await listClocks(ctx.db, ctx.now_ms())).toHaveLength(1);
});
test("sent twice it happens once; another window's start is refused in words", async () => {
  expect(await startCoat(ctx, input(1, "s1"))).not.toBe("");
  await expect(startCoat(ctx, input(1, "other"))).rejects.toThrow("Coat 1 is running already");
  await expect(stopCoat(ctx, input(2, "e2"))).rejects.toThrow("not running any more");
  await stopCoat(ctx, input(1, "e1"));
  await expect(stopCoat(ctx, input(1, "again"))).rejects.toThrow("not running any more");
  await expect(startCoat(ctx, input(3, "s3"))).rejects.toThrow("Another window was first");
  expect((await listEntries(ctx.db, ids.panelId)).filter((e) => e.kind === "coat")).toHaveLength(1);
});
test("the next coat takes the gun of the one before", async () => {
  await recordEntry(ctx, { panelId: ids.panelId, kind: "coat", body: { ...coatBody(1), reducer: 0.07 }, by: "painter A" });
  await startCoat(ctx, input(2, "s2"));
  await stopCoat(ctx, input(2, "e2"));
  const last = (await loadPanelView(ctx, ids.jobId, ids.panelId))!.state.coats.at(-1)!.entry.body;
  expect(last).toMatchObject({ number: 2, reducer: 0.07, settings: coatBody(1).settings });
});
test("a struck start is not running; a job that is not there is nothing", async () => {
  const id = await startCoat(ctx, input(1, "s1"));
  await strikeEntry(ctx, id, { by: "painter A", reason: "" });
  expect((await panel()).spraying).toBeNull();
  expect(await loadBooth(ctx, "none")).toBeNull();
  await expect(startCoat(ctx, { ...input(1, "x"), panelId: "none" })).rejects.toThrow("no longer there");
});
