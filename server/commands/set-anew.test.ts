import { coatsAsked } from "#core/coat/asked";
import { coatsAhead } from "#core/coat/coats-ahead";
import { type FoundOtherwise, asPlannedFound, equalFinish, equalFrom } from "#core/coat/equal-finish";
import { testContext, testJob } from "#server/testing/fixtures";
import { dialVersion, loadDial } from "#server/views/dial-view";
import { loadPanelView } from "#server/views/panel-view";
import { listEntries } from "../repos/ledger-repo";
import { recordEntry } from "./record-entry";
import { setAnew } from "./set-anew";

const who = "painter A";

async function panelAtHand() {
  const ctx = await testContext();
  const { jobId, panelId } = await testJob(ctx);
  const look = async () => (await loadPanelView(ctx, jobId, panelId))!;
  const from = async () => equalFrom(coatsAsked(await look(), ctx.now_ms()))!;
  const found = async (o: Partial<FoundOtherwise>) => ({ ...asPlannedFound(await from()), ...o });
  const set = async (o: Partial<FoundOtherwise>, more: { clientKey?: string; expected?: string | null } = {}) =>
    setAnew(ctx, await look(), { found: await found(o), by: "hand", who, clientKey: null, expected: null, ...more });
  return { ctx, panelId, look, from, found, set };
}

test("what is set is the gun from now on: every page's next coat lays the film that was promised; no air is logged that is as it was", async () => {
  const { ctx, panelId, look, from, found, set } = await panelAtHand();
  const low = await found({ pressure_Pa: 1.5e5 });
  const promised = equalFinish(await from(), low).ways.find((w) => w.by === "hand")!;
  await set({ pressure_Pa: 1.5e5 });
  const [next] = coatsAhead(coatsAsked(await look(), ctx.now_ms()))!;
  expect(next!.dry_m / promised.dry_m).toBeCloseTo(1, 6);
  expect(next!.gun).toMatchObject({ pressure_Pa: 1.5e5, handSpeed_m_s: promised.settings.handSpeed_m_s });
  expect((await listEntries(ctx.db, panelId)).map((e) => e.kind)).toEqual(["gunSet"]);
  expect((await loadDial(ctx, await look()))!.from.settings.pressure_Pa).toBe(1.5e5);
});

test("another air is logged with it, once somebody has logged a climate", async () => {
  const { ctx, panelId, look, set } = await panelAtHand();
  await expect(set({ air_K: 300 })).rejects.toMatchObject({
    field: "air",
    message: expect.stringContaining("Log the climate first") as string,
  });
  expect(await listEntries(ctx.db, panelId)).toEqual([]);
  await recordEntry(ctx, {
    panelId,
    kind: "climate",
    body: { air_K: 294, part_K: null, relativeHumidity: 0.5, material_K: null },
    by: who,
  });
  await set({ air_K: 300 });
  expect((await look()).state.climate!.body).toMatchObject({ air_K: 300, relativeHumidity: 0.5 });
});

test("sent twice it is set once; upon a ledger that has moved it is told so", async () => {
  const { ctx, panelId, look, set } = await panelAtHand();
  const expected = dialVersion(await look());
  const first = await set({ pressure_Pa: 1.5e5 }, { clientKey: "k", expected });
  const found = { pressure_Pa: 1.5e5 };
  expect(await set(found, { clientKey: "k", expected })).toBe(first);
  await expect(set(found, { expected })).rejects.toThrow("changed in another window");
  expect(first).toBe((await listEntries(ctx.db, panelId))[0]!.id);
  expect(await listEntries(ctx.db, panelId)).toHaveLength(1);
});

test("with all coats on there is nothing to set", async () => {
  const { ctx, look, set } = await panelAtHand();
  const view = await look();
  const done = { ...view, panel: { ...view.panel, coatsPlanned: 0 } };
  expect(await loadDial(ctx, done)).toBeNull();
  const input = { found: asPlannedFound(equalFrom(coatsAsked(view, ctx.now_ms()))!), by: "hand" as const, who, clientKey: null };
  await expect(setAnew(ctx, done, { ...input, expected: null })).rejects.toThrow("no coat to set the gun for");
  await expect(set({ pressure_Pa: 1 })).rejects.toThrow("no coat to set the gun for");
});
