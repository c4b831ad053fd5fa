import type { BodyInputOf, EntryKind } from "#core/record/bodies";
import { nextAsked } from "#core/coat/asked";
import { handGun, nextCoat } from "#core/coat/next-coat";
import { USUAL_GUN } from "#core/models/spray/usual-gun";
import { exportJob, importJob } from "#server/commands/job-bundles";
import { addPanel } from "#server/commands/jobs";
import { recordEntry, strikeEntry } from "#server/commands/record-entry";
import type { Change } from "#server/events/bus";
import { getPanel } from "#server/repos/panel-repo";
import { coatBody, readingBody, testContext, testJob } from "#server/testing/fixtures";
import type { JobBundle } from "#server/interchange/job-bundle";
import { type PanelView, loadPanelView } from "#server/views/panel-view";

/** Climate, gun and pot belong to the job: entered on one panel, they serve the others until changed. */

const by = "painter A";
const HOUR_MS = 3600e3;
const climate = (air_K: number) => ({ air_K, part_K: null, relativeHumidity: 0.5, material_K: null });
const settings = { ...coatBody(1).settings, fluidRate_m3_s: 290e-6 / 60, handSpeed_m_s: 0.4 };
const gun = { gunId: null, name: "Gun T", settings };
let ctx: Awaited<ReturnType<typeof testContext>>;
beforeEach(async () => {
  ctx = await testContext();
});
afterEach(() => ctx.db.destroy());

const wetOf = (view: PanelView) => view.state.coats.reduce((a, c) => a + c.predicted.wet_m, 0);
function withoutOrder(bundle: JobBundle): JobBundle {
  const plain = structuredClone(bundle);
  for (const p of plain.panels) for (const e of p.entries) delete e.order;
  return plain;
}

/** A job of two panels of the same product. */
async function twoPanels() {
  const { jobId, panelId: door } = await testJob(ctx);
  const { shape, tilt_rad, substrate, productRevisionId, coatsPlanned } = (await getPanel(ctx.db, door))!;
  const wing = await addPanel(ctx, jobId, { name: "Wing", shape, tilt_rad, substrate, productRevisionId, coatsPlanned });
  const view = async (panelId: string) => (await loadPanelView(ctx, jobId, panelId))!;
  const log = <K extends EntryKind>(panelId: string, kind: K, body: BodyInputOf<K>) => recordEntry(ctx, { panelId, kind, body, by });
  return { jobId, door, wing, view, log };
}

test("the day's climate is asked for once a job: it serves the other panel's coats and pages, and its strike is felt there too", async () => {
  const { door, wing, view, log } = await twoPanels();
  const id = await log(door, "climate", climate(303.15));
  await log(wing, "coat", coatBody(1));
  const warm = await view(wing);
  expect(warm.state.climate?.body.air_K).toBe(303.15);
  await strikeEntry(ctx, id, { by, reason: "" });
  const unlogged = await view(wing);
  expect(unlogged.state.climate).toBeNull();
  expect(wetOf(unlogged)).toBeGreaterThan(wetOf(warm) * 1.01); // warm air dries it on the way
});

test("another panel's climate is another day's after twelve hours, and says nothing of a panel whose coats are all on", async () => {
  const { door, wing, view, log } = await twoPanels();
  await log(door, "climate", climate(303.15));
  ctx.advance(13 * HOUR_MS);
  await log(wing, "coat", coatBody(1));
  const alone = wetOf(await view(wing));
  await log(wing, "climate", climate(293.15));
  expect(wetOf(await view(wing))).toBe(alone); // 20 °C is what an unlogged day counts as
  await log(wing, "coat", coatBody(2));
  const done = await view(wing);
  await log(door, "climate", climate(283.15));
  expect((await view(wing)).state.climate).toEqual(done.state.climate);
  expect(wetOf(await view(wing))).toBe(wetOf(done));
});

test("a measured gun follows the painter to the next panel, with a coat's own pace taken out, until another is taken up", async () => {
  const { door, wing, view, log } = await twoPanels();
  expect(handGun(nextAsked(await view(wing)))).toMatchObject({ from: "usual", settings: USUAL_GUN });
  await log(door, "gunSet", gun);
  expect(nextCoat(nextAsked(await view(wing)))).toMatchObject({
    number: 1,
    from: "gun",
    gunName: "Gun T",
    settings,
  });
  await log(door, "coat", { ...coatBody(1), reducer: 0.1, settings: { ...settings, pressure_Pa: 2.2e5 } });
  expect(handGun(nextAsked(await view(wing)))).toMatchObject({
    from: "other panel",
    reducer: 0.1,
    settings: { fluidRate_m3_s: settings.fluidRate_m3_s, pressure_Pa: 2.2e5 },
  });
  await log(wing, "coat", coatBody(1));
  expect(handGun(nextAsked(await view(wing)))).toMatchObject({ from: "last coat", settings: coatBody(1).settings });
  expect((await view(wing)).state.coats).toHaveLength(1);
  expect((await view(door)).state.coats).toHaveLength(1);
});

test("a pot serves every panel it was made for: its reducer is not asked again", async () => {
  const { door, wing, view, log } = await twoPanels();
  const mix = (panels: string[], reducer: number) => ({ volume_m3: 5e-4, reducer, potLife_s: 3600, panels });
  await log(door, "mix", mix([], 0.1));
  expect(handGun(nextAsked(await view(wing))).reducer).toBe(0.1);
  await log(door, "mix", mix([door], 0.05));
  expect(handGun(nextAsked(await view(wing))).reducer).toBe(0.1);
  expect(handGun(nextAsked(await view(door))).reducer).toBe(0.05);
});

test("windows on the job's other panels are told, for what serves them and for nothing else", async () => {
  const { jobId, door, log } = await twoPanels();
  const heard: Change[] = [];
  ctx.bus.subscribe((c) => heard.push(c));
  await log(door, "note", { text: "only here" });
  expect(heard.filter((c) => c.topic === "job")).toEqual([]);
  await log(door, "climate", climate(295));
  expect(heard.filter((c) => c.topic === "job")).toEqual([{ topic: "job", id: jobId }]);
});

test("a job file carries the order among panels: taken in elsewhere, every panel counts the same; without it, its times do", async () => {
  const { jobId, door, wing, view, log } = await twoPanels();
  await log(wing, "reading", readingBody("before", "1", 90));
  await log(wing, "coat", coatBody(1)); // before any climate
  ctx.advance(60_000);
  await log(door, "climate", climate(306));
  ctx.advance(60_000);
  await log(wing, "coat", coatBody(2)); // in the climate of the door
  await log(wing, "reading", readingBody("after", "1", 140));
  const bundle = (await exportJob(ctx, jobId))!;
  const before = await view(wing);
  const plain = withoutOrder(bundle);
  for (const file of [bundle, plain]) {
    const other = await testContext();
    await importJob(other, file);
    const taken = (await loadPanelView(other, jobId, wing))!;
    expect(taken.state.coats.map((c) => c.predicted)).toEqual(before.state.coats.map((c) => c.predicted));
    expect(taken.state.film).toEqual(before.state.film);
    expect(withoutOrder((await exportJob(other, jobId))!)).toEqual(plain);
    await other.db.destroy();
  }
});
