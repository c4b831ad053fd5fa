import { listCards } from "#server/repos/card-repo";
import { listClocks } from "#server/repos/clock-repo";
import { listJobs } from "#server/repos/job-repo";
import { listEntries } from "#server/repos/ledger-repo";
import { listPanels } from "#server/repos/panel-repo";
import { listShelf } from "#server/repos/product-repo";
import { testContext } from "#server/testing/fixtures";
import { loadCans } from "#server/views/cans-view";
import { loadMatteShelf } from "#server/views/matte-view";
import { loadPanelView } from "#server/views/panel-view";
import { loadScenario } from "./scenario";

let ctx: Awaited<ReturnType<typeof testContext>>;
beforeAll(async () => {
  ctx = await testContext();
  await loadScenario(ctx);
});
afterAll(async () => {
  await ctx.db.destroy();
});
const views = async () => {
  const jobs = await listJobs(ctx.db);
  const all = await Promise.all(
    jobs.map(async (j) => Promise.all((await listPanels(ctx.db, j.id)).map((p) => loadPanelView(ctx, j.id, p.id)))),
  );
  return all.flat().map((v) => v!);
};

test("four jobs in different states: handed over, between coats, not begun, in correction", async () => {
  expect((await listJobs(ctx.db)).map((j) => j.vehicle).sort()).toEqual([
    "Imbat harbour shuttle",
    "Lodos estate",
    "Meltem roadster",
    "Poyraz cargo trike",
  ]);
  const stations = new Set((await views()).map((v) => v.standing.station));
  for (const s of ["spray", "correct", "hand-over"]) expect(stations.has(s as "spray")).toBe(true);
});
test("every reading came from a stand-in and says so; no product or vehicle is a real one's", async () => {
  for (const v of await views()) {
    const readings = (await listEntries(ctx.db, v.panel.id)).filter((e) => e.kind === "reading" || e.kind === "gloss");
    expect(readings.every((r) => r.simulated)).toBe(true);
  }
  expect((await listShelf(ctx.db)).map((p) => p.sheet.name).every((n) => /^(Clear|Matte|Base|Sealer|Hardener|Reducer) /.test(n))).toBe(
    true,
  );
});
test("clocks run: a flash, a pot and a cure", async () => {
  expect(new Set((await listClocks(ctx.db, ctx.now_ms())).map((c) => c.kind))).toEqual(new Set(["flash", "pot", "cure"]));
});
test("a hardener is on its last day; the matte job has six cards of one ladder and a target", async () => {
  expect((await loadCans(ctx)).some((c) => c.age.state === "today" && c.kind === "hardener")).toBe(true);
  const { cards } = await loadMatteShelf(ctx);
  expect(new Set(cards.filter((c) => c.body.cure === "air").map((c) => c.body.mattingShare)).size).toBe(6);
  expect(await listCards(ctx.db)).toHaveLength(7);
  const cowl = (await views()).find((v) => v.panel.name === "Cowl")!;
  expect(cowl.state.gloss.some((g) => g.body.role === "target" && g.body.angle === 60)).toBe(true);
});
test("the film of every measured panel is plausible: clear between 20 and 160 µm, total below 300", async () => {
  const measured = (await views()).flatMap((v) => v.state.spots.filter((s) => s.clear && s.films.before));
  expect(measured.length).toBeGreaterThan(10);
  for (const s of measured) {
    expect(s.clear!.clear_m * 1e6).toBeGreaterThan(20);
    expect(s.clear!.clear_m * 1e6).toBeLessThan(160);
    expect((s.films.after?.film.mean_m ?? 0) * 1e6).toBeLessThan(300);
  }
});
