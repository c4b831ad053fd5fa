import { coatsAsked } from "#core/coat/asked";
import { nextCoat } from "#core/coat/next-coat";
import { windowAhead } from "#core/coat/window-ahead";
import { TEXTURE_LIMITS } from "#core/models/flow/constants";
import { flowVerdict } from "#core/models/flow/flow-advice";
import { partSheet } from "#core/models/product/sheet-schema";
import { recordEntry } from "../commands/record-entry";
import { coatBody, testContext, testJob } from "../testing/fixtures";
import { mixSetting } from "./mix-view";
import { loadPanelView } from "./panel-view";

test("a mix opens with the reducer of the coat that is next, and says what a later one has more", async () => {
  const ctx = await testContext();
  const { jobId, panelId } = await testJob(ctx, null, { reducerMin: 0.05, reducerMax: 0.1 });
  const view = async (wetter: readonly number[]) => {
    const v = (await loadPanelView(ctx, jobId, panelId))!;
    const coats = v.job.way.coats.map((c, i) => ({ ...c, reducerShift: wetter[i] ?? 0 }));
    return { ...v, job: { ...v.job, way: { ...v.job.way, coats } } };
  };
  const opened = async (wetter: readonly number[]) => {
    const v = await view(wetter);
    const { reducer, faces } = mixSetting(v, [], ctx.now_ms());
    expect(reducer).toBeCloseTo(nextCoat(coatsAsked(v, ctx.now_ms())).reducer, 12);
    return { reducer, more: faces[0]!.coats.map((c) => Math.round(1000 * c.more) / 1000) };
  };
  expect(await opened([0, 0.05])).toEqual({ reducer: 0.05, more: [0, 0.05] });
  expect(await opened([0.05, 0.05])).toEqual({ reducer: 0.1, more: [0, 0] });
  await recordEntry(ctx, { panelId, kind: "coat", body: { ...coatBody(1), reducer: 0.05 }, by: "painter A" });
  expect((await opened([0, 0.05])).more).toEqual([0]);
  expect((await opened([0, 0.05])).reducer).toBeCloseTo(0.1, 12);
});

test("what a shop has learnt of its coats is in the list of hardeners as in the window", async () => {
  const ctx = await testContext();
  const { jobId, panelId } = await testJob(ctx);
  const view = (await loadPanelView(ctx, jobId, panelId))!;
  const told = (film: number) => {
    const shopFactors = { ...view.shopFactors, film };
    const parts = [{ sheet: partSheet.parse({ name: "medium", kind: "hardener", speed: "medium" }) }];
    const list = mixSetting({ ...view, shopFactors }, parts, ctx.now_ms()).judged![0]!.class;
    const { conditions, coats } = windowAhead(coatsAsked({ ...view, shopFactors }, ctx.now_ms()));
    expect(list).toBe(flowVerdict({ conditions, coats, shop: shopFactors }, TEXTURE_LIMITS.flat).class);
    return list;
  };
  expect(new Set([0.4, 1, 2].map(told)).size).toBeGreaterThan(1);
});
