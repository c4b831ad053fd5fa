import { logLayerCoat, planLayers } from "#server/commands/layers";
import { testContext, testJob } from "#server/testing/fixtures";
import { loadPanelView } from "#server/views/panel-view";
import { layersAt } from "./layers-at";

test("more ground coats than anybody sprays are shown all the same", async () => {
  const ctx = await testContext();
  const { jobId, panelId } = await testJob(ctx);
  const view = async () => (await loadPanelView(ctx, jobId, panelId))!;
  const plan = { layers: [{ layer: "base" as const, coats: 3, productId: null }], shade: "", shadeRight: null, upon: null };
  await planLayers(ctx, await view(), { ...plan, by: "painter A", clientKey: null });
  const shown = async () => layersAt(await view(), [], ctx.now_ms());
  const log = async () =>
    logLayerCoat(ctx, await view(), { layer: "ground", settings: null, reducer: null, by: "painter A", clientKey: null });
  for (let i = 0; i < 2; i++) await log();
  expect((await shown()).hiding).toMatchObject({ coats: 2, why: ["sheet", "ground"] });
  for (let i = 0; i < 19; i++) await log();
  const { hiding, ground, rows } = await shown();
  expect(hiding).toBeNull();
  expect(ground!.saved_m3).toBeCloseTo(ground!.left_m3, 12);
  expect(rows.map((r) => [r.layer, r.coats])).toEqual([
    ["ground", 21],
    ["base", 3],
  ]);
});
