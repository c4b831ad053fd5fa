import { recordEntries, recordEntry, strikeEntry } from "#server/commands/record-entry";
import { coatBody, readingBody, testContext, testJob } from "#server/testing/fixtures";
import { LEDGER_LINES, loadLedgerLines } from "./ledger-view";
import { loadPanelView } from "./panel-view";

const by = "painter A";
let ctx: Awaited<ReturnType<typeof testContext>>;
beforeEach(async () => {
  ctx = await testContext();
});
afterEach(() => ctx.db.destroy());

/** So often sanded that more is off than any film: nothing that one form sends, and nothing that the film can be worked out with. */
const sanded = (panelId: string, times: number) =>
  recordEntries(
    ctx,
    panelId,
    Array.from({ length: times }, () => ({
      panelId,
      kind: "flatten" as const,
      body: { grit: 800, by: "machine" as const, removal_m: 300e-6, u_m: 10e-6, from: "told" as const },
      by,
    })),
  );

test("a ledger that cannot be worked out as a whole is shown, without the entries in the way, and each comes out", async () => {
  const { jobId, panelId } = await testJob(ctx);
  const view = async () => (await loadPanelView(ctx, jobId, panelId))!;
  await recordEntry(ctx, { panelId, kind: "coat", body: coatBody(1), by });
  await recordEntry(ctx, { panelId, kind: "reading", body: readingBody("after", "1", 131), by });
  const ids = await sanded(panelId, 335);
  const { inTheWay, spots } = (await view()).state;
  expect(inTheWay.length).toBeGreaterThan(0);
  expect(inTheWay.every((i) => ids.includes(i.entry.id) && i.why.includes("total_m"))).toBe(true);
  expect(spots).toHaveLength(1);
  // A list of jobs, another entry, a strike: none of them is stopped by it.
  await recordEntry(ctx, { panelId, kind: "note", body: { text: "still here" }, by });
  for (const { entry } of inTheWay) await strikeEntry(ctx, entry.id, { by, reason: "undo", whole: true });
  expect((await view()).state.inTheWay).toEqual([]);
});

test("a slip of one reading takes no page down: its spot doubts itself, the others do not", async () => {
  const { jobId, panelId } = await testJob(ctx);
  const at = (spot: string, ...films_um: number[]) => ({
    ...readingBody("after", spot, 0, { x_m: 0.2 + 0.2 * Number(spot), y_m: 0.4 }),
    readings: films_um.map((f) => ({ thickness_m: f * 1e-6, entered: String(f), unit: "µm" })),
  });
  for (const spot of ["1", "2", "3", "4"]) await recordEntry(ctx, { panelId, kind: "reading", body: at(spot, 131, 129, 130), by });
  const before = (await loadPanelView(ctx, jobId, panelId))!.state;
  for (const slip of [
    [131, 480, 129],
    [1, 3000],
  ]) {
    const id = await recordEntry(ctx, { panelId, kind: "reading", body: at("5", ...slip), by });
    const after = (await loadPanelView(ctx, jobId, panelId))!.state;
    expect(after.inTheWay).toEqual([]);
    const spot = after.spots.find((s) => s.name === "5")!;
    expect(spot.films.after).toMatchObject({ scattered: true });
    expect(spot.films.after!.film.u_m).toBeGreaterThan(50e-6);
    // The gauge is not thought worse of anywhere else, and the mean of the panel hardly moves.
    expect(after.repeatability_m).toBeCloseTo(before.repeatability_m, 12);
    expect(after.film.mean!.clear_m).toBeCloseTo(before.film.mean!.clear_m, 5);
    await strikeEntry(ctx, id, { by, reason: "undo" });
  }
});

test("a long ledger comes in parts, newest first, and says which of its entries count", async () => {
  const { panelId } = await testJob(ctx);
  const ids = await recordEntries(
    ctx,
    panelId,
    Array.from({ length: LEDGER_LINES + 5 }, (_, i) => ({ panelId, kind: "note" as const, body: { text: `word ${i}` }, by })),
  );
  const strikeId = await strikeEntry(ctx, ids[2]!, { by, reason: "undo" });
  const first = await loadLedgerLines(ctx, panelId);
  expect(first).toMatchObject({ count: LEDGER_LINES + 5, pages: 2 });
  expect(first.lines.map((l) => l.id)).toEqual(ids.slice(5).reverse());
  const second = await loadLedgerLines(ctx, panelId, { page: 2 });
  expect(second.lines.map((l) => [l.id, l.superseded, l.struckBy])).toEqual(
    ids
      .slice(0, 5)
      .reverse()
      .map((id) => [id, id === ids[2], id === ids[2] ? strikeId : null]),
  );
  expect((await loadLedgerLines(ctx, panelId, { page: 3 })).lines).toEqual([]);
});
