import { keepProfile, profileFor } from "./commands/import-profiles";
import { setSpotCount, addSpot } from "./commands/spot-plan";
import { seededRandom } from "#core/kernel/stats/random";
import { createDeviceHub } from "./devices/device-hub";
import { checkStandInGauge, takeStandInReadings } from "./devices/take-readings";
import { readReadings } from "./interchange/readings-csv";
import { MOST_PROFILES, getShop } from "./repos/shop-repo";
import { testContext, testJob } from "./testing/fixtures";
import { loadFilmHistory, loadPanelView } from "./views/panel-view";

async function panelOf() {
  const ctx = await testContext();
  const { jobId, panelId } = await testJob(ctx);
  const view = async () => {
    ctx.advance(1000);
    const v = await loadPanelView(ctx, jobId, panelId);
    if (!v) throw new Error("no panel");
    return v;
  };
  return { ctx, panelId, view };
}

test("more places are walked when asked for, some on body lines; added places keep their names", async () => {
  const { ctx, view } = await panelOf();
  expect((await view()).spotPlan).toHaveLength(8);
  await setSpotCount(ctx, await view(), { count: 14, by: "painter A" });
  expect((await view()).spotPlan.map((s) => s.name)).toEqual([...Array(14).keys()].map((i) => String(i + 1)));
  expect(await addSpot(ctx, await view(), { x_m: 0.7, y_m: 0.6, by: "painter A" })).toBe("+1");
  expect(await addSpot(ctx, await view(), { x_m: 0.8, y_m: 0.6, by: "painter A" })).toBe("+2");
  await setSpotCount(ctx, await view(), { count: 5, by: "painter A" });
  const plan = (await view()).spotPlan;
  expect(plan.map((s) => s.name)).toEqual(["1", "2", "3", "4", "5", "+1", "+2"]);
  expect(plan.at(-1)!.at).toEqual([0.8, 0.6]);
});

test("at most 24 places are added; the refusal says so", async () => {
  const { ctx, view } = await panelOf();
  for (let i = 0; i < 24; i++) await addSpot(ctx, await view(), { x_m: 0.5, y_m: 0.5, by: "" });
  await expect(addSpot(ctx, await view(), { x_m: 0.5, y_m: 0.5, by: "" })).rejects.toThrow("At most 24 places");
});

test("the stand-in gauge is checked and read spot by spot, marked simulated, and the history follows", async () => {
  const { ctx, panelId, view } = await panelOf();
  await checkStandInGauge(ctx, { panelId, by: "painter A" });
  const v = await view();
  expect(v.state.gaugeChecks[0]!.simulated).toBe(true);
  expect(v.state.gaugeChecks[0]!.body.onFoil).toHaveLength(3);
  for (const spot of v.spotPlan.slice(0, 3))
    await takeStandInReadings(ctx, { panelId, phase: "after", spots: [spot], count: 3, by: "", template: true });
  const after = await view();
  expect(after.state.spots.map((s) => s.films.after?.readings_m.length)).toEqual([3, 3, 3]);
  expect(after.state.sessions.relocation_m).toBe(0.003);
  expect((await loadFilmHistory(ctx, after)).map((m) => [m.what, m.simulated])).toEqual([["after clear", true]]);
});

test("a file's columns are remembered by their heading, the newest first; a file without a heading is not", async () => {
  const ctx = await testContext();
  const profile = (columns: string[]) => ({ columns, roles: columns.map(() => "film" as const), filmUnit: "mil" as const });
  await keepProfile(ctx, profile(["Spot", "Film"]));
  await keepProfile(ctx, { ...profile(["Spot", "Film"]), filmUnit: "µm" });
  expect(await profileFor(ctx, ["Spot", "Film"])).toMatchObject({ filmUnit: "µm" });
  expect(await profileFor(ctx, ["Spot", "Other"])).toBeNull();
  await keepProfile(ctx, profile(["column 1", "column 2"]));
  expect((await getShop(ctx.db)).importProfiles).toHaveLength(1);
  for (let i = 0; i < MOST_PROFILES + 3; i++) await keepProfile(ctx, profile([`h${i}`]));
  expect((await getShop(ctx.db)).importProfiles).toHaveLength(MOST_PROFILES);
  expect(await profileFor(ctx, ["Spot", "Film"])).toBeNull();
});

test("a file that was matched once is matched whatever the order of its columns, and gives the same spots", async () => {
  const ctx = await testContext();
  const roles = { A: "ignore", Ort: "spot", "B mil": "film", "C mil": "film", Y: "y", X: "x" } as const;
  const cells: Record<keyof typeof roles, string>[] = [
    { A: "17", Ort: "roof", "B mil": "4.1", "C mil": "4.3", Y: "300", X: "500" },
    { A: "18", Ort: "edge", "B mil": "3.9", "C mil": "4.0", Y: "200", X: "250" },
  ];
  const file = (order: (keyof typeof roles)[]) => [order.join(","), ...cells.map((row) => order.map((c) => row[c]).join(","))].join("\n");
  const usual = Object.keys(roles) as (keyof typeof roles)[];
  await keepProfile(ctx, { columns: usual, roles: usual.map((c) => roles[c]), filmUnit: "mil" });
  const outline: [number, number][] = [
    [0, 0],
    [1, 0],
    [1, 1],
    [0, 1],
  ];
  const read = async (order: (keyof typeof roles)[]) => {
    const known = await profileFor(ctx, order);
    const out = readReadings(file(order), {
      roles: known!.roles,
      filmUnit: known!.filmUnit,
      lengthUnit: "mm",
      phase: "after",
      outline,
      spots: [],
    });
    if (!out.ok) throw new Error(out.problems[0]!.reason);
    return out.value.map((s) => ({ ...s, readings: s.readings.map((r) => r.entered).sort() }));
  };
  const asFirst = await read(usual);
  expect(asFirst.map((s) => [s.spot, s.at])).toEqual([
    ["roof", [0.5, 0.3]],
    ["edge", [0.25, 0.2]],
  ]);
  const random = seededRandom(3);
  for (let i = 0; i < 40; i++) {
    const order = usual
      .map((c) => [random(), c] as const)
      .sort(([a], [b]) => a - b)
      .map(([, c]) => c);
    expect(await read(order)).toEqual(asFirst);
  }
  // Two columns of one name are told apart by which comes first.
  await keepProfile(ctx, { columns: ["n", "n", "spot"], roles: ["ignore", "film", "spot"], filmUnit: "µm" });
  expect((await profileFor(ctx, ["spot", "n", "n"]))!.roles).toEqual(["spot", "ignore", "film"]);
  expect(await profileFor(ctx, ["spot", "n", "m"])).toBeNull();
});

test("readings of a bridged gauge are handed on once, oldest first, and only the last hundred are kept", () => {
  const hub = createDeviceHub();
  const from = hub.lastGaugeSeq();
  hub.pushGauge({ total_m: 131e-6, device: "Gauge 2" }, 1000);
  hub.pushGauge({ total_m: 128e-6, device: "Gauge 2" }, 1100);
  expect(hub.gaugeAfter(from).map((r) => r.total_m)).toEqual([131e-6, 128e-6]);
  expect(hub.gaugeAfter(hub.lastGaugeSeq())).toEqual([]);
  for (let i = 0; i < 150; i++) hub.pushGauge({ total_m: 1e-6 * i, device: "Gauge 2" }, 2000 + i);
  expect(hub.gaugeAfter(from)).toHaveLength(100);
});
