import { asLayer } from "#core/coat/as-layer";
import { coatsAsked } from "#core/coat/asked";
import { nextCoat } from "#core/coat/next-coat";
import { LAYERS } from "#core/models/prep/layers";

import { addPanel, saveProduct } from "./commands/jobs";
import { logLayerCoat, planLayers } from "./commands/layers";
import { recordEntry } from "./commands/record-entry";
import { coatBody, testContext, testJob } from "./testing/fixtures";
import { loadPanelView } from "./views/panel-view";

const by = "painter A";
/** Two panels of one job with the same clear. */
async function pair() {
  const ctx = await testContext();
  const { jobId, panelId: a } = await testJob(ctx);
  const view = async (id: string) => (await loadPanelView(ctx, jobId, id))!;
  const { panel, product } = await view(a);
  const { shape, tilt_rad, substrate, coatsPlanned } = panel;
  const b = await addPanel(ctx, jobId, { name: "Wing", shape, tilt_rad, substrate, coatsPlanned, productRevisionId: product.revisionId });
  return { ctx, a, b, view };
}
const mix = { volume_m3: 4e-4, reducer: 0.05, potLife_s: 7200 };

test("a coat on another panel out of a pot of its own takes nothing out of this panel's pot", async () => {
  const { ctx, a, b, view } = await pair();
  await recordEntry(ctx, { panelId: a, kind: "mix", body: { ...mix, panels: [a] }, by });
  const potId = await recordEntry(ctx, { panelId: b, kind: "mix", body: { ...mix, panels: [b] }, by });
  ctx.advance(60_000);
  await recordEntry(ctx, { panelId: b, kind: "coat", body: { ...coatBody(1), potId, volume_m3: 1e-4 }, by });
  expect((await view(a)).state.pots.map((p) => p.left_m3)).toEqual([4e-4]);
  expect((await view(b)).state.pots[0]!.left_m3).toBeCloseTo(3e-4, 12);
});

test("the gun of a layer follows from panel to panel, and its pot serves both", async () => {
  const { ctx, a, b, view } = await pair();
  const base = await saveProduct(ctx, { ...LAYERS.base.sheet, name: "Base T", ratio: "1:1" });
  const layers = [{ layer: "base" as const, coats: 2, productId: base.productId as string | null }];
  for (const id of [a, b]) await planLayers(ctx, await view(id), { layers, shade: "", shadeRight: null, upon: null, by, clientKey: null });
  await recordEntry(ctx, { panelId: a, kind: "mix", body: { ...mix, product: "Base T" }, by });
  const next = async (id: string) => {
    const v = await view(id);
    return nextCoat(asLayer(coatsAsked(v, ctx.now_ms()), v.state.below[0]!));
  };
  expect((await next(b)).from).toBe("usual");
  ctx.advance(60_000);
  const settings = { ...LAYERS.base.gun, handSpeed_m_s: 0.55, fluidFrom: "turns" as const, fan_m: null };
  await logLayerCoat(ctx, await view(a), { layer: "base", settings, reducer: 0.05, by, clientKey: null });
  const there = await next(b);
  expect(there.from).toBe("other panel");
  expect(there.settings.handSpeed_m_s).toBe(0.55);
  expect(there.number).toBe(1);
  const [onA, onB] = [(await view(a)).state.below[0]!, (await view(b)).state.below[0]!];
  expect(onB.pots[0]!.left_m3).toBeLessThan(3.9e-4);
  expect(onB.pots[0]!.left_m3).toBe(onA.pots[0]!.left_m3);
  // A coat as usual says nothing of the gun.
  await logLayerCoat(ctx, await view(b), { layer: "base", settings: null, reducer: null, by, clientKey: null });
  expect((await next(a)).settings.handSpeed_m_s).toBe(0.55);
});
