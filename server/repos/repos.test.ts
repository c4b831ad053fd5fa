import { sql } from "kysely";
import { archiveJob, archiveProduct, saveProduct, stopClock } from "#server/commands/jobs";
import { recordEntry, strikeEntry } from "#server/commands/record-entry";
import { listClocks } from "#server/repos/clock-repo";
import { countJobs, getJob, listJobs } from "#server/repos/job-repo";
import { listStandings } from "#server/repos/summary-repo";
import { getProductRevision, listClears, listProducts, listShelf } from "#server/repos/product-repo";
import { getShop } from "#server/repos/shop-repo";
import { coatBody, readingBody, sheet, testContext, testJob } from "#server/testing/fixtures";
import { loadLedgerLines } from "#server/views/ledger-view";
import { loadPanelView } from "#server/views/panel-view";

const by = "painter A";
const MINUTE_MS = 60_000;
let ctx: Awaited<ReturnType<typeof testContext>>;
beforeEach(async () => {
  ctx = await testContext();
});
afterEach(async () => {
  await ctx.db.destroy();
});

describe("the shelf", () => {
  test("newest revision of each, by name; coats and clears apart from what only goes into a mix", async () => {
    const clear = await saveProduct(ctx, sheet);
    await saveProduct(ctx, { ...sheet, volumeSolids: 0.5 }, clear.productId);
    await saveProduct(ctx, { ...sheet, name: "Base B", kind: "base" });
    await saveProduct(ctx, { name: "Hardener T", kind: "hardener" });
    expect((await listShelf(ctx.db)).map((p) => [p.sheet.name, p.revision])).toEqual([
      ["Base B", 1],
      ["Clear T", 2],
      ["Hardener T", 1],
    ]);
    expect((await listProducts(ctx.db)).map((p) => p.sheet.name)).toEqual(["Base B", "Clear T"]);
    expect((await listClears(ctx.db)).map((p) => p.sheet.volumeSolids)).toEqual([0.5]);
    expect((await getProductRevision(ctx.db, clear.revisionId))!.sheet.volumeSolids).toBe(0.48);
  });
  test("a part is no revision a panel can be planned with; an archived product leaves the shelf but not its jobs", async () => {
    const part = await saveProduct(ctx, { name: "Hardener T", kind: "hardener" });
    expect(await getProductRevision(ctx.db, part.revisionId)).toBeNull();
    const { productId, jobId, panelId } = await testJob(ctx);
    await archiveProduct(ctx, productId, true);
    expect(await listClears(ctx.db)).toEqual([]);
    expect((await loadPanelView(ctx, jobId, panelId))!.product.sheet.name).toBe("Clear T");
    await archiveProduct(ctx, productId, false);
    expect(await listClears(ctx.db)).toHaveLength(1);
  });
  test("a sheet kept before a figure existed reads with that figure unknown", async () => {
    const { revisionId } = await saveProduct(ctx, sheet);
    const old = {
      name: "Old",
      kind: "clear",
      ratio: "2:1 + 5–10 %",
      volumeSolids: 0.45,
      speed: "slow",
      coats: 2,
      filmPerCoatMin_m: 2e-5,
      filmPerCoatMax_m: 3e-5,
      flashMin_s: 600,
      flashMax_s: 900,
      potLife_s: 3600,
      sandAfter_s: 57600,
      floor_m: null,
    };
    await ctx.db
      .updateTable("product_revision")
      .set({ sheet_json: JSON.stringify(old) } as never)
      .where("id", "=", revisionId)
      .execute();
    expect((await getProductRevision(ctx.db, revisionId))!.sheet).toMatchObject({
      ratio: "2:1 + 5–10 %",
      density_kg_m3: null,
      potLifeAt: [],
      bake: null,
      reducerMax: 0,
    });
  });
});

describe("jobs and what their panels count", () => {
  test("an archived job leaves the list and its clocks the strip, and comes back", async () => {
    const { jobId, panelId } = await testJob(ctx);
    await recordEntry(ctx, { panelId, kind: "coat", body: coatBody(1), by });
    expect(await listClocks(ctx.db, ctx.now_ms())).toHaveLength(1);
    await archiveJob(ctx, jobId, true);
    expect(await listJobs(ctx.db)).toEqual([]);
    expect(await listClocks(ctx.db, ctx.now_ms())).toEqual([]);
    await archiveJob(ctx, jobId, false);
    expect((await listJobs(ctx.db)).map((j) => j.id)).toEqual([jobId]);
    expect(await getJob(ctx.db, "none")).toBeNull();
  });
  test("a search finds jobs by every word of vehicle, colour and panels; it is sorted, narrowed and cut to pages", async () => {
    const { jobId } = await testJob(ctx);
    const second = await testJob(ctx);
    await sql`update job set vehicle = 'Apollo 100%', colour_name = 'deep teal', finish = 'matte' where id = ${second.jobId}`.execute(
      ctx.db,
    );
    const found = async (search: Parameters<typeof listJobs>[1]) => {
      const jobs = await listJobs(ctx.db, search);
      expect(await countJobs(ctx.db, search)).toBe(jobs.length);
      return jobs.map((j) => j.id);
    };
    expect(await found({ words: ["teal", "apollo"] })).toEqual([second.jobId]);
    expect(await found({ words: ["bonnet", "grey"] })).toEqual([jobId]);
    expect(await found({ words: ["100%"] })).toEqual([second.jobId]);
    expect(await found({ words: ["10_%"] })).toEqual([]);
    expect(await found({ finish: "matte" })).toEqual([second.jobId]);
    expect(await found({ sort: "vehicle" })).toEqual([second.jobId, jobId]);
    expect(await found({ sort: "vehicle", desc: true })).toEqual([jobId, second.jobId]);
    expect(await found({ sort: "id; drop table job" })).toHaveLength(2);
    expect((await listJobs(ctx.db, { sort: "vehicle", most: 1, from: 1 })).map((j) => j.id)).toEqual([jobId]);
  });
  test("struck entries do not count; their lines stay in the ledger, marked", async () => {
    const { jobId, panelId } = await testJob(ctx);
    const id = await recordEntry(ctx, { panelId, kind: "coat", body: coatBody(1), by });
    await recordEntry(ctx, { panelId, kind: "reading", body: readingBody("before", "1", 90), by });
    await strikeEntry(ctx, id, { by, reason: "" });
    expect((await listStandings(ctx.db, [jobId]))[0]?.standing.action).toMatchObject({ kind: "coat", number: 1, of: 2 });
    expect((await loadLedgerLines(ctx, panelId)).lines.map((l) => [l.kind, l.superseded])).toEqual([
      ["reading", false],
      ["coat", true],
    ]);
  });
});

describe("clocks", () => {
  test("running ones first, soonest first; stopped ones are gone until they are set going again", async () => {
    const a = await testJob(ctx);
    await recordEntry(ctx, { panelId: a.panelId, kind: "coat", body: coatBody(1), by });
    ctx.advance(5 * MINUTE_MS);
    const b = await testJob(ctx);
    await recordEntry(ctx, { panelId: b.panelId, kind: "coat", body: coatBody(1), by });
    ctx.advance(6 * MINUTE_MS);
    const order = async () => (await listClocks(ctx.db, ctx.now_ms())).map((c) => c.panelId);
    expect(await order()).toEqual([b.panelId, a.panelId]);
    const [first] = await listClocks(ctx.db, ctx.now_ms());
    await stopClock(ctx, first!.id, true);
    expect(await order()).toEqual([a.panelId]);
    await stopClock(ctx, first!.id, false);
    expect(await order()).toEqual([b.panelId, a.panelId]);
    await expect(stopClock(ctx, "none", true)).rejects.toThrow("no longer there");
  });
  test("a pot over since the morning is gone, and a panel that is handed over has no clock; taken back it has", async () => {
    const { panelId } = await testJob(ctx);
    await recordEntry(ctx, { panelId, kind: "mix", body: { volume_m3: 5e-4, reducer: 0, potLife_s: 3600 }, by });
    await recordEntry(ctx, { panelId, kind: "coat", body: coatBody(1), by });
    const kinds = async (later_min = 0) => (await listClocks(ctx.db, ctx.now_ms() + later_min * MINUTE_MS)).map((c) => c.kind).sort();
    expect(await kinds()).toEqual(["flash", "pot"]);
    expect(await kinds(2 * 60)).toEqual(["flash", "pot"]); // over: mix again
    expect(await kinds(6 * 60)).toEqual(["flash"]);
    const over = await recordEntry(ctx, { panelId, kind: "handOver", body: { note: "" }, by });
    expect(await kinds()).toEqual([]);
    await strikeEntry(ctx, over, { by, reason: "" });
    expect(await kinds()).toEqual(["flash", "pot"]);
  });
  test("what was due two days ago is not shown any more, and only so many are", async () => {
    const { panelId } = await testJob(ctx);
    await recordEntry(ctx, { panelId, kind: "coat", body: coatBody(1), by });
    expect(await listClocks(ctx.db, ctx.now_ms() + 3 * 1440 * MINUTE_MS)).toEqual([]);
    expect(await listClocks(ctx.db, ctx.now_ms(), 0)).toEqual([]);
  });
});

test("suggested spots are worked out once a panel and stay the same", async () => {
  const { jobId, panelId } = await testJob(ctx);
  const first = (await loadPanelView(ctx, jobId, panelId))!.spotPlan;
  expect(ctx.spotMemo.get(`${panelId} ${first.length}`)).toHaveLength(first.length);
  expect((await loadPanelView(ctx, jobId, panelId))!.spotPlan).toEqual(first);
  await recordEntry(ctx, { panelId, kind: "reading", body: readingBody("before", "2", 90, { x_m: 0.33, y_m: 0.44 }), by });
  expect((await loadPanelView(ctx, jobId, panelId))!.spotPlan[1]).toEqual({ name: "2", at: [0.33, 0.44] });
  expect((await getShop(ctx.db)).learntFilm).toBeNull();
});
