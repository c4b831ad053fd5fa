import { derivePanel } from "#core/panel/derive-panel";
import { PREFLIGHT } from "#core/models/prep/preflight";
import { gunBody } from "#core/models/spray/gun";
import { coatSettings, saveGun, archiveGun, takeUpGun } from "./commands/guns";
import { changeShop } from "./commands/house";
import { setHouseWay } from "./commands/jobs";
import { recordEntry } from "./commands/record-entry";
import { ChangedMeanwhile, Refusal } from "./commands/refusal";
import { takeClimate } from "./devices/take-climate";
import { takeOvenLog } from "./devices/take-oven";
import { listGuns } from "./repos/gun-repo";
import { listEntries } from "./repos/ledger-repo";
import { getShop, shopFactors } from "./repos/shop-repo";
import { coatBody, readingBody, sheet, testContext, testJob } from "./testing/fixtures";
import { loadGuns } from "./views/guns-view";
import { loadLearnt } from "./views/learnt-view";
import { loadPanelView } from "./views/panel-view";
import { loadPreflight } from "./views/preflight-view";

const GUN = gunBody.parse({
  name: "Clear gun",
  nozzle_m: 1.3e-3,
  allTurns: 5,
  cups: [
    { turns: 2, volume_m3: 30e-6, time_s: 10 },
    { turns: 3, volume_m3: 40e-6, time_s: 10 },
  ],
  fan: { fan_m: 0.25, distance_m: 0.175 },
  checks: ["ellipse"],
  settings: { turns: 2, pressure_Pa: 1.9e5, distance_m: 0.14, overlap: 0.5, handSpeed_m_s: 0.34 },
});
const under = (film_m: number | null) => ({
  step: "base" as const,
  grit: null,
  coats: null,
  film_m,
  pressure_Pa: null,
  reach_m: null,
  note: "",
});

test("a kept gun gives a coat its measured flow and its fan scaled to the distance", () => {
  const s = coatSettings(GUN);
  expect(s.fluidFrom).toBe("measured");
  expect(s.fluidRate_m3_s * 60e6).toBeCloseTo(180, 0);
  expect(s.fan_m).toBeCloseTo(0.2, 12);
  expect(coatSettings({ ...GUN, cups: [], fan: null })).toMatchObject({ fluidFrom: "turns", fan_m: null });
});
test("guns: kept once however often the form is sent, changed by one window at a time, put away", async () => {
  const ctx = await testContext();
  const id = await saveGun(ctx, { id: null, version: null, body: GUN, clientKey: "k" });
  expect(await saveGun(ctx, { id: null, version: null, body: GUN, clientKey: "k" })).toBe(id);
  await saveGun(ctx, { id, version: "1", body: { ...GUN, name: "Other name" }, clientKey: null });
  await expect(saveGun(ctx, { id, version: "1", body: GUN, clientKey: null })).rejects.toThrow(ChangedMeanwhile);
  expect((await listGuns(ctx.db)).map((g) => [g.body.name, g.version])).toEqual([["Other name", 2]]);
  await archiveGun(ctx, id, true);
  expect(await listGuns(ctx.db)).toEqual([]);
});
test("a gun taken up holds until the next coat; one that is gone is refused", async () => {
  const ctx = await testContext();
  const { jobId, panelId } = await testJob(ctx);
  const gunId = await saveGun(ctx, { id: null, version: null, body: GUN, clientKey: null });
  await takeUpGun(ctx, { panelId, gunId, by: "painter A", clientKey: null });
  expect((await loadPanelView(ctx, jobId, panelId))!.state.gunSet?.body.name).toBe("Clear gun");
  ctx.advance(1000);
  await recordEntry(ctx, { panelId, kind: "coat", body: coatBody(1), by: "painter A" });
  expect((await loadPanelView(ctx, jobId, panelId))!.state.gunSet).toBeNull();
  await expect(takeUpGun(ctx, { panelId, gunId: "no", by: "painter A", clientKey: null })).rejects.toThrow(Refusal);
});
test("settings that worked come from panels without a run; a run takes them off the list", async () => {
  const ctx = await testContext();
  const { panelId } = await testJob(ctx);
  await recordEntry(ctx, { panelId, kind: "coat", body: coatBody(1), by: "painter A" });
  await recordEntry(ctx, { panelId, kind: "reading", body: readingBody("after", "1", 120), by: "painter A" });
  expect((await loadGuns(ctx)).worked).toEqual([]); // a panel between its coats says nothing yet
  await recordEntry(ctx, { panelId, kind: "coat", body: coatBody(2), by: "painter A" });
  expect((await loadGuns(ctx)).worked).toEqual([]); // nobody has looked at it
  await recordEntry(ctx, { panelId, kind: "lookedOver", body: {}, by: "painter A" });
  expect((await loadGuns(ctx)).worked).toMatchObject([{ where: "Test estate, Bonnet", product: "Clear T" }]);
  const run = { kind: "run" as const, at: { x_m: 0.5, y_m: 0.5 }, length_m: 0.05, width_m: 0.01, height_m: 6e-5, measured: true };
  await recordEntry(ctx, { panelId, kind: "defect", body: run, by: "painter A" });
  expect((await loadGuns(ctx)).worked).toEqual([]);
});
test("a logged base film is drawn as told and narrows what is inferred without before-readings", async () => {
  const ctx = await testContext();
  const { jobId, panelId } = await testJob(ctx);
  await recordEntry(ctx, { panelId, kind: "reading", body: readingBody("after", "1", 170), by: "painter A" });
  const before = (await loadPanelView(ctx, jobId, panelId))!.state;
  await recordEntry(ctx, { panelId, kind: "under", body: under(40e-6), by: "painter A" });
  const after = (await loadPanelView(ctx, jobId, panelId))!.state;
  expect(before.layers.find((l) => l.key === "base")!.how).toBe("inferred");
  expect(after.layers.find((l) => l.key === "base")).toMatchObject({ thickness_m: 40e-6, how: "told" });
  // 15 µm more base than usual leaves less for the clear.
  expect(after.spots[0]!.clear!.clear_m).toBeLessThan(before.spots[0]!.clear!.clear_m);
});
test("with before-readings the older layers share what the logged ones leave", async () => {
  const ctx = await testContext();
  const { jobId, panelId } = await testJob(ctx);
  await recordEntry(ctx, { panelId, kind: "reading", body: readingBody("before", "1", 100), by: "painter A" });
  await recordEntry(ctx, { panelId, kind: "under", body: under(22e-6), by: "painter A" });
  const { layers } = (await loadPanelView(ctx, jobId, panelId))!.state;
  expect(layers.reduce((a, l) => a + l.thickness_m, 0)).toBeCloseTo(100e-6, 9);
});
test("a wet comb stands beside its coat without changing it", async () => {
  const ctx = await testContext();
  const { panelId } = await testJob(ctx);
  await recordEntry(ctx, { panelId, kind: "coat", body: coatBody(1), by: "painter A" });
  await recordEntry(ctx, { panelId, kind: "wetComb", body: { number: 1, thickness_m: 52e-6, entered: "52", unit: "µm" }, by: "painter A" });
  const entries = await listEntries(ctx.db, panelId);
  const state = derivePanel(
    {
      shape: (await loadPanelView(ctx, (await ctx.db.selectFrom("job").select("id").executeTakeFirstOrThrow()).id, panelId))!.panel.shape,
      substrate: "refinish",
      tilt_rad: 0,
      coatsPlanned: 2,
    },
    sheet,
    entries,
  );
  expect(state.coats[0]!.entry.body.wetReading_m).toBe(52e-6);
  expect(entries.find((e) => e.kind === "coat")!.body).toMatchObject({ wetReading_m: null });
});
test("ready: what holds for the whole job is kept from its other panels, what belongs to a panel is not; the probe is logged as simulated", async () => {
  const ctx = await testContext();
  const { jobId, panelId, revisionId } = await testJob(ctx);
  const { addPanel } = await import("./commands/jobs");
  const view = (await loadPanelView(ctx, jobId, panelId))!;
  const other = await addPanel(ctx, jobId, { ...view.panel, name: "Other", productRevisionId: revisionId });
  await recordEntry(ctx, { panelId, kind: "preflight", body: { ticks: ["tack", "light", "air"] }, by: "painter A" });
  const { fromJob } = await loadPreflight(ctx, jobId, other);
  expect([...fromJob].sort()).toEqual(["air", "light"]);
  expect(PREFLIGHT.find((p) => p.id === "tack")!.scope).toBe("panel");
  await takeClimate(ctx, { panelId, by: "painter A" });
  const { log } = await loadPreflight(ctx, jobId, panelId);
  expect(log[0]).toMatchObject({ simulated: true });
  ctx.devices.pushClimate({ air_K: 291, part_K: null, material_K: null, relativeHumidity: 0.4 }, ctx.now_ms());
  await takeClimate(ctx, { panelId, by: "painter A" });
  expect((await loadPreflight(ctx, jobId, panelId)).log[0]).toMatchObject({ simulated: false, air_K: 291 });
});
test("a bake's log is stored whole and marked simulated", async () => {
  const ctx = await testContext();
  const { jobId, panelId } = await testJob(ctx);
  const plan = { room_K: 293.15, air_K: 333.15, purge_s: 900, ramp_s: 600, hold_s: 1800 };
  await takeOvenLog(ctx, { panelId, plan, by: "painter A" });
  const { oven } = (await loadPanelView(ctx, jobId, panelId))!.state;
  expect(oven).toMatchObject({ simulated: true });
  expect(oven!.body.samples.at(-1)!.at_s).toBeGreaterThanOrEqual(900 + 600 + 1800 + 3540);
});
test("texture ratings: eight of them are enough, those after sanding do not count, and the factor reaches the flow model", async () => {
  const ctx = await testContext();
  const { panelId, jobId, revisionId } = await testJob(ctx);
  const { addPanel } = await import("./commands/jobs");
  const view = (await loadPanelView(ctx, jobId, panelId))!;
  for (let i = 0; i < 8; i++) {
    const id = await addPanel(ctx, jobId, { ...view.panel, name: `P${i}`, productRevisionId: revisionId });
    await recordEntry(ctx, { panelId: id, kind: "reading", body: readingBody("before", "1", 90), by: "painter A" });
    await recordEntry(ctx, { panelId: id, kind: "coat", body: coatBody(1), by: "painter A" });
    await recordEntry(ctx, { panelId: id, kind: "reading", body: readingBody("after", "1", 120), by: "painter A" });
    await recordEntry(ctx, { panelId: id, kind: "texture", body: { role: "part", rating: 4, place: "" }, by: "painter A" });
    if (i < 7) expect((await loadLearnt(ctx)).texture.enough).toBe(false);
  }
  const { texture } = await loadLearnt(ctx);
  expect(texture).toMatchObject({ enough: true, n: 8 });
  expect(texture.factor).toBeGreaterThan(1);
  await changeShop(ctx, (now) => ({ ...now, learntTexture: { factor: texture.factor, u_log: texture.u_log, n: texture.n } }));
  expect(shopFactors(await getShop(ctx.db))).toEqual({ film: 1, levelling: 1, noise: texture.factor });
  expect((await loadPanelView(ctx, jobId, panelId))!.shopFactors.noise).toBe(texture.factor);
});
test("another house way changes the job and the panel's coats, never below what is on already", async () => {
  const ctx = await testContext();
  const { jobId, panelId } = await testJob(ctx);
  await setHouseWay(ctx, { jobId, panelId, wayId: "four-flat" });
  expect((await loadPanelView(ctx, jobId, panelId))!).toMatchObject({ job: { way: { id: "four-flat" } }, panel: { coatsPlanned: 4 } });
  for (const n of [1, 2, 3]) await recordEntry(ctx, { panelId, kind: "coat", body: coatBody(n), by: "painter A" });
  await setHouseWay(ctx, { jobId, panelId, wayId: "two-full" });
  expect((await loadPanelView(ctx, jobId, panelId))!.panel.coatsPlanned).toBe(3);
  await expect(setHouseWay(ctx, { jobId: "no", panelId, wayId: "two-full" })).rejects.toThrow(Refusal);
});
