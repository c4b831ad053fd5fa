import fc from "fast-check";
import { coatsAsked } from "#core/coat/asked";
import { litresToCome, litresTogether } from "#core/coat/litres";
import { nextCoat } from "#core/coat/next-coat";
import { setOtherwise } from "#core/coat/set-otherwise";
import { panelShape } from "#core/kernel/geometry/shapes";
import { listStandings } from "#server/repos/summary-repo";
import { coatBody, readingBody, testContext, testJob } from "#server/testing/fixtures";
import { type PanelView, loadPanelView } from "#server/views/panel-view";
import { addPanel } from "./jobs";
import { recordEntry, strikeEntry } from "./record-entry";
import { coatTogether, heatTogether, mixTogether, prepareTogether } from "./together";

const by = "painter A";

/** A bonnet and a door of one job, both read below, or nothing done yet. */
async function twoPanels(read = true) {
  const ctx = await testContext();
  const { jobId, panelId, revisionId } = await testJob(ctx);
  const door = await addPanel(ctx, jobId, {
    name: "Door",
    shape: panelShape("door", { width_m: 1.1, height_m: 0.7 }),
    tilt_rad: Math.PI / 2,
    substrate: "refinish",
    productRevisionId: revisionId,
    coatsPlanned: 2,
  });
  for (const id of read ? [panelId, door] : [])
    await recordEntry(ctx, { panelId: id, kind: "reading", body: readingBody("before", "1", 92), by });
  const look = async (id: string) => (await loadPanelView(ctx, jobId, id))!;
  const t = (step: string, clientKey: string | null = null) => ({
    ...{ jobId, panelIds: [panelId, door], step, by, clientKey },
    said: (views: readonly PanelView[]) => views.map((v) => `${v.panel.name}, coats ${v.state.coats.length}`).join("; "),
  });
  return { ctx, jobId, bonnet: panelId, door, look, t };
}

test("a coat on two panels is each one's own next coat, as if each had been logged alone; one press takes both out again", async () => {
  const { ctx, bonnet, door, look, t } = await twoPanels();
  const planned = await Promise.all([bonnet, door].map(async (id) => nextCoat(coatsAsked(await look(id), ctx.now_ms())).settings));
  const { entryIds, said } = await coatTogether(ctx, { ...t("front 1"), otherwise: {} });
  expect(said).toBe("Bonnet, coats 0; Door, coats 0");
  const on = await Promise.all([bonnet, door].map(async (id) => (await look(id)).state.coats.map((c) => c.entry.body.settings)));
  expect(on).toEqual(planned.map((p) => [p]));
  await strikeEntry(ctx, entryIds[0]!, { by, reason: "undo", also: entryIds.slice(1) });
  expect((await look(bonnet)).state.coats.length + (await look(door)).state.coats.length).toBe(0);
});

test("where one of them is past the step nothing is stored at any, and the panel is named", async () => {
  const { ctx, bonnet, door, look, t } = await twoPanels();
  await recordEntry(ctx, { panelId: door, kind: "coat", body: coatBody(1), by });
  await expect(coatTogether(ctx, { ...t("front 1"), otherwise: {} })).rejects.toThrow(/^Door: this is not the step there any more/);
  expect((await look(bonnet)).state.coats).toHaveLength(0);
});

test("sent again with its key it is stored once and answered in the same words; a second window that saw the same coat is refused", async () => {
  const { ctx, bonnet, look, t } = await twoPanels();
  const first = await coatTogether(ctx, { ...t("front 1", "k"), otherwise: {} });
  const again = await coatTogether(ctx, { ...t("front 1", "k"), otherwise: {} });
  expect(again).toEqual(first);
  await expect(coatTogether(ctx, { ...t("front 1", "other"), otherwise: {} })).rejects.toThrow("another window was first");
  expect((await look(bonnet)).state.coats).toHaveLength(1);
});

test("one pot for both is their coats to come and one cup's rest, serves both, and is refused where their clears differ", async () => {
  const { ctx, bonnet, door, look, t } = await twoPanels();
  const asked = await Promise.all([bonnet, door].map(async (id) => coatsAsked(await look(id), ctx.now_ms())));
  await mixTogether(ctx, { ...t("mix"), volume_m3: null });
  const both = litresTogether(asked).toMix_m3;
  const [one, other] = asked.map((a) => litresToCome(a).toMix_m3);
  expect(both).toBeLessThan(one! + other!);
  expect(both).toBeGreaterThan(Math.max(one!, other!));
  for (const id of [bonnet, door]) expect((await look(id)).state.mix?.body.volume_m3).toBeCloseTo(both, 9);
});

test("prepared and heated together; heat on a panel that is not there yet is refused", async () => {
  const { ctx, look, bonnet, door, t } = await twoPanels(false);
  await prepareTogether(ctx, { ...t("prepare"), ticks: ["wiped", "tack"] });
  for (const id of [bonnet, door]) expect((await look(id)).state.preflight?.body.ticks).toEqual(["wiped", "tack"]);
  await expect(heatTogether(ctx, t("bake of tomorrow"))).rejects.toThrow("not the step there");
});

test("what lists say is open at a panel is what its page says", async () => {
  const { ctx, jobId, look, t } = await twoPanels();
  const agree = async () => {
    for (const { panelId, standing } of await listStandings(ctx.db, [jobId]))
      expect(standing.open).toEqual((await look(panelId)).standing.open);
  };
  await agree();
  await coatTogether(ctx, { ...t("front 1"), otherwise: {} });
  await agree();
});

test("what is set otherwise changes that alone: fluid rises with the turns, and what nobody said stays as planned", () => {
  const planned = coatBody(1).settings;
  expect(setOtherwise(planned, {})).toEqual(planned);
  fc.assert(
    fc.property(fc.double({ min: 0.5, max: 3.9, noNaN: true }), fc.double({ min: 0.05, max: 1, noNaN: true }), (turns, hand) => {
      const byTurns = { ...planned, fluidFrom: "turns" as const, turns: 2 };
      const more = setOtherwise(byTurns, { turns, handSpeed_m_s: hand });
      expect(more.fluidRate_m3_s / planned.fluidRate_m3_s).toBeCloseTo(turns / 2, 9);
      expect({ ...more, turns: 2, fluidRate_m3_s: planned.fluidRate_m3_s, handSpeed_m_s: planned.handSpeed_m_s }).toEqual(byTurns);
    }),
  );
  expect(() => setOtherwise(planned, { handSpeed_m_s: 99 })).toThrow(RangeError);
});
