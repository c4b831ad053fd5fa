import { recordReading } from "./commands/record-reading";
import { recordEntry, strikeEntry } from "./commands/record-entry";
import { changeShop } from "./commands/house";
import { takeClimate } from "./devices/take-climate";
import { readStandInMark, takeStandInReadings } from "./devices/take-readings";
import { coatBody, readingBody, testContext, testJob } from "./testing/fixtures";
import { loadPanelView } from "./views/panel-view";

async function shop() {
  const ctx = await testContext();
  const { jobId, panelId } = await testJob(ctx);
  const read = (phase: "before" | "after", spot: string, film_um: number, replaces: string[] = [], key = `k${spot}${film_um}`) =>
    recordReading(ctx, { panelId, body: readingBody(phase, spot, film_um), by: "", clientKey: key, at_ms: ctx.now_ms(), replaces });
  const spotOf = async (name: string) => (await loadPanelView(ctx, jobId, panelId))!.state.spots.find((s) => s.name === name)!;
  return { ctx, jobId, panelId, read, spotOf };
}

test("a reading in place of others stands where the first stood, alone; sent twice it is one; undone the slip is back", async () => {
  const { ctx, panelId, read, spotOf } = await shop();
  await recordEntry(ctx, { panelId, kind: "coat", by: "", body: coatBody(1) });
  const first = await read("after", "1", 163);
  const second = await read("after", "1", 164);
  const flat = { grit: 1500, by: "machine" as const, removal_m: 5e-6, u_m: 1e-6, from: "told" as const };
  await recordEntry(ctx, { panelId, kind: "flatten", by: "", body: flat });
  const id = await read("after", "1", 122, [first, second]);
  expect(await read("after", "1", 122, [first, second])).toBe(id);
  const { films, latest } = await spotOf("1");
  // The film as sprayed, read late: not what is left after sanding.
  expect(films.after!.readings_m.map((m) => Math.round(m * 1e6))).toEqual([122]);
  expect(latest!.since.taken_m).toBeCloseTo(5e-6, 9);
  await strikeEntry(ctx, id, { by: "", reason: "undo" });
  expect((await spotOf("1")).films.after!.readings_m.map((m) => Math.round(m * 1e6))).toEqual([163]);
});

test("a reading stands in for readings of its own spot only", async () => {
  const { ctx, panelId, read } = await shop();
  const other = await read("before", "2", 90);
  const coat = await recordEntry(ctx, { panelId, kind: "coat", by: "", body: coatBody(1) });
  for (const wrong of [other, coat, "nothing"]) await expect(read("before", "1", 90, [wrong])).rejects.toThrow("no reading of this spot");
});

test("with stand-ins off, as a shop begins, nothing simulated comes to a panel or to the screen", async () => {
  const { ctx, panelId, spotOf } = await shop();
  await changeShop(ctx, (now) => ({ ...now, standIns: false }));
  const spots = [{ name: "1", at: [0.5, 0.4] as [number, number] }];
  const simulated = [
    () => takeStandInReadings(ctx, { panelId, phase: "before", spots, count: 3, by: "" }),
    () => takeClimate(ctx, { panelId, by: "" }),
    () => readStandInMark(ctx, panelId, "before"),
    () => recordEntry(ctx, { panelId, kind: "reading", by: "", body: readingBody("before", "1", 90), simulated: true }),
  ];
  for (const take of simulated) await expect(take()).rejects.toThrow("Simulated devices are off");
  expect(await spotOf("1")).toBeUndefined();
});

test("what is partly simulated and partly read says so", async () => {
  const { ctx, jobId, panelId, read } = await shop();
  await read("before", "2", 95);
  const mixed = async () => (await loadPanelView(ctx, jobId, panelId))!.state.mixed;
  expect(await mixed()).toBeNull();
  await takeStandInReadings(ctx, { panelId, phase: "before", spots: [{ name: "1", at: [0.5, 0.4] }], count: 3, by: "" });
  expect(await mixed()).toEqual({ simulated: 1, of: 2 });
});

test("one spot with a typed and simulated readings says so, also where no other was read (once: not told)", async () => {
  const { ctx, jobId, panelId, read } = await shop();
  const mixed = async () => (await loadPanelView(ctx, jobId, panelId))!.state.mixed;
  await takeStandInReadings(ctx, { panelId, phase: "before", spots: [{ name: "1", at: [0.5, 0.4] }], count: 3, by: "" });
  expect(await mixed()).toBeNull(); // all of it is simulated, and marked so
  await read("before", "1", 95);
  expect(await mixed()).toEqual({ simulated: 1, of: 1 });
});
