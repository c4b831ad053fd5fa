import { asLayer } from "#core/coat/as-layer";
import { coatsAsked } from "#core/coat/asked";
import { nextCoat } from "#core/coat/next-coat";
import { LAYERS } from "#core/models/prep/layers";
import { saveProduct } from "./commands/jobs";
import { logLayerCoat, planLayers } from "./commands/layers";
import { putRight } from "./commands/put-right";
import { recordEntry } from "./commands/record-entry";
import { exportJob } from "./commands/job-bundles";
import { sheet, testContext, testJob } from "./testing/fixtures";
import { loadPanelView } from "./views/panel-view";
import { layerMixes, nextMixed } from "./views/mix-view";

const by = "painter A";
async function below() {
  const ctx = await testContext();
  const { jobId, panelId } = await testJob(ctx);
  const base = await saveProduct(ctx, { ...LAYERS.base.sheet, name: "Base T", ratio: "1:1" });
  const view = async () => (await loadPanelView(ctx, jobId, panelId))!;
  const plan = async (
    upon: string | null,
    layers = [{ layer: "base" as const, coats: 2, productId: base.productId as string | null }],
    clientKey: string | null = null,
  ) => planLayers(ctx, await view(), { layers, shade: "grey 3", shadeRight: null, upon, by, clientKey });
  const log = async (o: Partial<Parameters<typeof logLayerCoat>[2]> = {}) =>
    logLayerCoat(ctx, await view(), { layer: "base", settings: null, reducer: null, by, clientKey: null, ...o });
  return { ctx, jobId, panelId, base, view, plan, log };
}
const settings = { ...LAYERS.base.gun, fluidFrom: "turns" as const, fan_m: null };

test("what goes below is kept with the sheet as it stands; a second window asks, and a form sent twice keeps it once", async () => {
  const { ctx, base, view, plan } = await below();
  const id = await plan(null, undefined, "key 1");
  expect(await plan(null, undefined, "key 1")).toBe(id);
  expect((await view()).state.below).toMatchObject([{ layer: "base", coats: 2, own: true, sheet: { name: "Base T" } }]);
  await expect(plan(null)).rejects.toThrow("another window");
  // The shelf's sheet changes; what was planned keeps its own until it is planned again.
  await saveProduct(ctx, { ...LAYERS.base.sheet, name: "Base T", volumeSolids: 0.2 }, base.productId);
  expect((await view()).state.below[0]!.sheet.volumeSolids).toBe(LAYERS.base.sheet.volumeSolids);
  await plan((await view()).state.layerPlan!.id);
  expect((await view()).state.below[0]!.sheet.volumeSolids).toBe(0.2);
});

test("a product of another kind, or one that is gone, is refused at its field", async () => {
  const { ctx, plan } = await below();
  const clear = await saveProduct(ctx, { ...sheet, name: "Clear no base" });
  await expect(plan(null, [{ layer: "base", coats: 1, productId: clear.productId }])).rejects.toMatchObject({ field: "base" });
  await expect(plan(null, [{ layer: "base", coats: 1, productId: "gone" }])).rejects.toThrow("no longer on the shelf");
});

test("a coat below takes the sheet, the pot that lives and the litres by its strokes; another window's coat is asked, not counted twice", async () => {
  const { ctx, panelId, view, plan, log } = await below();
  await plan(null);
  await recordEntry(ctx, { panelId, kind: "mix", body: { volume_m3: 3e-4, reducer: 0.05, potLife_s: 7200, product: "Base T" }, by });
  expect(nextMixed(await view())).toBe("Base T");
  expect(layerMixes(await view(), ctx.now_ms())["Base T"]!.reducer).toBe(0.05);
  ctx.advance(60_000);
  await log({ settings, reducer: 0.05, shown: 1 });
  await expect(log({ settings, reducer: 0.05, shown: 1 })).rejects.toThrow("Coat 2 of the base coat comes next");
  const [layer] = (await view()).state.below;
  const [coat] = layer!.front;
  expect(coat).toMatchObject({ told: true, sheet: { name: "Base T" } });
  expect(coat!.entry.body.volume_m3).toBeGreaterThan(20e-6);
  expect(layer!.pots[0]!.left_m3).toBeCloseTo(3e-4 - coat!.entry.body.volume_m3!, 12);
  const asked = asLayer(coatsAsked(await view(), ctx.now_ms()), layer!);
  expect(nextCoat(asked)).toMatchObject({ number: 2, from: "last coat" });
});

test("a coat logged as usual is put right with its settings; its film and its litres follow, and the first stays in the ledger", async () => {
  const { ctx, panelId, view, log } = await below();
  const entryId = await log();
  const before = (await view()).state.below[0]!.front[0]!;
  expect(before.told).toBe(false);
  expect(
    await putRight(ctx, { panelId, entryId, body: { settings: { ...settings, handSpeed_m_s: 0.2 }, reducer: 0 }, at_ms: ctx.now_ms(), by }),
  ).toBe(true);
  const after = (await view()).state.below[0]!.front[0]!;
  expect(after.told).toBe(true);
  expect(after.predicted.dry_m).toBeGreaterThan(1.5 * before.predicted.dry_m);
  expect(after.entry.body.volume_m3).toBeGreaterThan(0);
});

test("what goes below travels with the job's file", async () => {
  const { ctx, jobId, plan, log } = await below();
  await plan(null);
  await log({ settings, reducer: 0 });
  const file = JSON.stringify(await exportJob(ctx, jobId));
  expect(file).toContain('"layerPlan"');
  expect(file).toContain('"Base T"');
});
