import { copyJob } from "#server/commands/change-brief";
import { setColours } from "#server/commands/colours";
import { exportJob, importJob } from "#server/commands/job-bundles";
import { addVehicleParts, orderPanels, placePanel } from "#server/commands/vehicle";
import type { ServerContext } from "#server/context";
import { jobBundle } from "#server/interchange/job-bundle";
import { listEntries } from "#server/repos/ledger-repo";
import { listPanels } from "#server/repos/panel-repo";
import { loadBooth } from "#server/views/booth-view";
import { loadColours, loadRound, loadVehicle } from "#server/views/vehicle-view";
import { testContext, testJob } from "#server/testing/fixtures";

let ctx: ServerContext;
beforeEach(async () => {
  ctx = await testContext();
});
afterEach(() => ctx.db.destroy());
const names = async (jobId: string) => (await listPanels(ctx.db, jobId)).map((p) => p.name);

test("a whole vehicle in one go: a panel a part, each once however often it is sent, none where one lies", async () => {
  const { jobId } = await testJob(ctx);
  const add = (placeIds: readonly string[], clientKey: string | null = null) =>
    addVehicleParts(ctx, { jobId, vehicle: "car5", placeIds, clientKey });
  expect(await add(["roof", "door-front-left", "quarter-left"], "k")).toBe(3);
  await add(["roof", "door-front-left", "quarter-left"], "k");
  expect(await names(jobId)).toEqual([expect.any(String), "Roof", "Front door, left", "Rear quarter, left"]);
  await expect(add(["roof"])).rejects.toMatchObject({ field: "place" });
  await expect(add(["bonnet", "roof"])).rejects.toMatchObject({ field: "place" });
  await expect(add(["keel"])).rejects.toMatchObject({ field: "place" });
  await expect(add([])).rejects.toMatchObject({ field: "place" });
  expect(await names(jobId)).toHaveLength(4); // all or none
  const round = (await loadRound(ctx, jobId))!;
  expect(round.round.borders.map((b) => b.lies)).toEqual(["above"]);
  expect(round.unplaced).toBe(1);
});

test("an order is the order of booth view; one that was made on another is refused; places are each one panel's", async () => {
  const { jobId } = await testJob(ctx);
  await addVehicleParts(ctx, { jobId, vehicle: "car5", placeIds: ["roof", "quarter-left"], clientKey: null });
  const before = (await loadVehicle(ctx, jobId))!;
  const ids = before.panels.map((p) => p.id);
  const order = [ids[2]!, ids[0]!];
  await orderPanels(ctx, { jobId, order, expected: before.version });
  expect((await loadBooth(ctx, jobId))!.panels.map((p) => p.id)).toEqual([ids[2], ids[0], ids[1]]);
  const later = (await loadVehicle(ctx, jobId))!;
  await expect(orderPanels(ctx, { jobId, order: ids, expected: before.version })).rejects.toMatchObject({ version: later.version });
  await expect(orderPanels(ctx, { jobId, order: [ids[0]!, ids[0]!], expected: null })).rejects.toMatchObject({ field: "order" });
  await expect(placePanel(ctx, { jobId, panelId: ids[0]!, place: "car5/roof", expected: null })).rejects.toMatchObject({ field: "place" });
  await expect(placePanel(ctx, { jobId, panelId: ids[0]!, place: "car5/keel", expected: null })).rejects.toMatchObject({ field: "place" });
  await placePanel(ctx, { jobId, panelId: ids[0]!, place: "car5/boot", expected: null });
  await placePanel(ctx, { jobId, panelId: ids[1]!, place: "", expected: null });
  expect((await listPanels(ctx.db, jobId)).map((p) => p.place)).toEqual(["car5/quarter-left", "car5/boot", undefined]);
});

test("two colours: kept with which part has which, each part keeps word of it; another window's are not written over; a copy and a file have them", async () => {
  const { jobId } = await testJob(ctx);
  await addVehicleParts(ctx, { jobId, vehicle: "car5", placeIds: ["roof", "shut-door-front-left"], clientKey: null });
  const before = (await loadColours(ctx, jobId))!;
  expect(before).toMatchObject({ order: null, job: { colours: { second: null, paint: null } } });
  const [door, roof] = before.panels;
  const second = { name: "white", css: "#e8e8e4" };
  const given = { jobId, by: "painter A", colours: { second, paint: "solid" as const } };
  await setColours(ctx, { ...given, parts: new Map([[roof!.id, "second"]]), expected: before.version });
  const after = (await loadColours(ctx, jobId))!;
  expect(after.panels.map((p) => p.colour)).toEqual(["first", "second", "first"]);
  expect(after.job.colours).toEqual(given.colours);
  expect(after.joints.some((j) => j.how === "goOn")).toBe(true);
  const notes = async (panelId: string) => (await listEntries(ctx.db, panelId)).filter((e) => e.kind === "note").map((e) => e.body);
  expect(await notes(roof!.id)).toEqual([{ text: "Colour of this part: grey → white" }]);
  expect(await notes(door!.id)).toEqual([]);
  await expect(setColours(ctx, { ...given, parts: new Map(), expected: before.version })).rejects.toMatchObject({ version: after.version });
  const copy = await copyJob(ctx, jobId);
  expect((await loadColours(ctx, copy.jobId))!.panels.map((p) => p.colour)).toEqual(["first", "second", "first"]);
  const bundle = jobBundle.parse(JSON.parse(JSON.stringify(await exportJob(ctx, jobId))));
  expect([bundle.job.colours, bundle.panels[1]!.colour]).toEqual([given.colours, "second"]);
  const other = await testContext();
  const imported = await importJob(other, bundle);
  expect((await loadColours(other, imported.jobId))!.panels.map((p) => p.colour)).toEqual(["first", "second", "first"]);
  await other.db.destroy();
  // One colour again: every part has it.
  await setColours(ctx, { ...given, colours: { second: null, paint: null }, parts: new Map(), expected: null });
  expect((await loadColours(ctx, jobId))!.panels.every((p) => p.colour === "first")).toBe(true);
});
