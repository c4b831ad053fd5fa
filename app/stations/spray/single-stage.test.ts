import { cautionsOf } from "#core/judge/zone-needs";
import { stackPrior } from "#core/models/film/stack-prior";
import { LAYERS } from "#core/models/prep/layers";
import { layersAt } from "./layers-at";
import { logLayerCoat } from "#server/commands/layers";
import { recordEntry } from "#server/commands/record-entry";
import { listClears } from "#server/repos/product-repo";
import { coatBody, testContext, testJob } from "#server/testing/fixtures";
import { loadPanelView } from "#server/views/panel-view";

const by = "painter A";
async function panelOf(own: Parameters<typeof testJob>[2]) {
  const ctx = await testContext();
  const { jobId, panelId } = await testJob(ctx, null, { name: "Colour T", ...own });
  return { ctx, panelId, view: async () => (await loadPanelView(ctx, jobId, panelId))! };
}

test("a panel is planned with a single stage as with a clear", async () => {
  const { ctx, view } = await panelOf({ kind: "single stage" });
  expect((await listClears(ctx.db)).map((p) => p.sheet.name)).toContain("Colour T");
  expect((await view()).state).toMatchObject({ coloured: true, flakes: false });
});

test("no base lies below a single stage, in the section and in what its film is judged from, but one that was logged", async () => {
  const { ctx, panelId, view } = await panelOf({ kind: "single stage" });
  const clear = await panelOf({ kind: "clear" });
  const keys = async (of: typeof view) => (await of()).state.layers.map((l) => l.key);
  expect(await keys(view)).not.toContain("base");
  expect(await keys(clear.view)).toContain("base");
  const { knownUnder } = (await view()).state;
  expect(stackPrior("refinish", knownUnder).under_m).toBeCloseTo(80e-6, 9);
  await recordEntry(ctx, { panelId, kind: "coat", body: coatBody(1), by });
  await logLayerCoat(ctx, await view(), { layer: "base", settings: null, reducer: null, by, clientKey: null });
  expect((await view()).state.knownUnder.base![0]).toBeCloseTo((4.5e-6 + 8.5e-6) / 2, 9);
});

test("its coats are told until it covers, and ground coats save of itself", async () => {
  const { ctx, view } = await panelOf({ kind: "single stage", coats: 3 });
  expect(layersAt(await view(), [], ctx.now_ms()).hiding).toEqual({ coats: 3, why: ["sheet"] });
  for (let i = 0; i < LAYERS.ground.sheet.coats; i++)
    await logLayerCoat(ctx, await view(), { layer: "ground", settings: null, reducer: null, by, clientKey: null });
  const { hiding, ground } = layersAt(await view(), [], ctx.now_ms());
  expect(hiding).toEqual({ coats: 2, why: ["sheet", "ground"] });
  expect(ground!.saved_m3).toBeCloseTo(ground!.left_m3, 12);
  expect(ground!.saved_m3).toBeGreaterThan(1e-5);
});

test("colour on the cloth is no sign on it, and flakes are warned of", async () => {
  const solid = cautionsOf([], (await (await panelOf({ kind: "single stage" })).view()).state).join(" ");
  expect(solid).toMatch(/undercoat showing/i);
  expect(solid).not.toMatch(/flakes/);
  const pearl = (await (await panelOf({ kind: "single stage", settles_s: 600 })).view()).state;
  expect(pearl.flakes).toBe(true);
  expect(cautionsOf([], pearl).join(" ")).toMatch(/flakes/);
  expect(cautionsOf([]).join(" ")).toMatch(/Colour on the cloth means/);
});
