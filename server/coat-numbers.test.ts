import { nextAsked } from "#core/coat/asked";
import { nextCoat } from "#core/coat/next-coat";
import { logCoat, startCoat, stopCoat } from "#server/commands/booth";
import { putRight } from "#server/commands/put-right";
import { recordEntry, strikeEntry } from "#server/commands/record-entry";
import { listClocks } from "#server/repos/clock-repo";
import { coatBody, readingBody, testContext, testJob } from "#server/testing/fixtures";
import { loadLedgerLines } from "#server/views/ledger-view";
import { loadPanelView } from "#server/views/panel-view";

/** A coat's number is its place among those that count: what is taken out moves the others up, and nothing is mixed up by it. */

const by = "painter A";
let ctx: Awaited<ReturnType<typeof testContext>>;
let jobId: string;
let panelId: string;
beforeEach(async () => {
  ctx = await testContext();
  ({ jobId, panelId } = await testJob(ctx));
});
afterEach(() => ctx.db.destroy());

const view = async () => (await loadPanelView(ctx, jobId, panelId))!;
const coats = async () => (await view()).state.coats.map(({ entry: { body } }) => [body.number, body.role, body.wetReading_m]);
const log = async (role: string) => logCoat(ctx, await view(), { body: { ...coatBody(1), role }, by, clientKey: null });
const comb = async (um: number) =>
  recordEntry(ctx, {
    panelId,
    kind: "wetComb",
    body: { number: (await view()).state.coats.at(-1)!.loggedAs, thickness_m: um / 1e6, entered: String(um), unit: "µm" },
    by,
  });

test("taking out coat 1 of three leaves coats 1 and 2, the next is 3, and putting it back restores all", async () => {
  const first = await log("tack");
  ctx.advance(1000);
  await log("full");
  await comb(52);
  await log("last");
  const strike = await strikeEntry(ctx, first, { by, reason: "" });
  expect(await coats()).toEqual([
    [1, "full", 52 / 1e6],
    [2, "last", null],
  ]);
  expect(nextCoat({ ...nextAsked(await view()), brief: { coatsPlanned: 3 } })).toMatchObject({ number: 3, loggedAs: 4 });
  await log("again");
  await comb(60);
  expect((await coats()).at(-1)).toEqual([3, "again", 60 / 1e6]);
  await strikeEntry(ctx, strike, { by, reason: "" });
  expect(await coats()).toEqual([
    [1, "tack", null],
    [2, "full", 52 / 1e6],
    [3, "last", null],
    [4, "again", 60 / 1e6],
  ]);
});

test("the comb of a coat that was taken out goes with it, and is no other coat's", async () => {
  const first = await log("tack");
  await log("full");
  await strikeEntry(ctx, first, { by, reason: "" });
  const newest = await log("last");
  await comb(70);
  await strikeEntry(ctx, newest, { by, reason: "" });
  expect(await coats()).toEqual([[1, "full", null]]);
});

test("the booth starts and stops the coat that the list shows, after one was taken out", async () => {
  const first = await log("tack");
  await log("full");
  await strikeEntry(ctx, first, { by, reason: "" });
  const input = { jobId, panelId, number: 2, by, clientKey: "booth" };
  await startCoat(ctx, { ...input, clientKey: "start" });
  await expect(startCoat(ctx, { ...input, clientKey: "again" })).rejects.toThrow("Coat 2 is running already");
  await expect(stopCoat(ctx, { ...input, number: 3, clientKey: "wrong" })).rejects.toThrow("not running");
  ctx.advance(240_000);
  await stopCoat(ctx, { ...input, clientKey: "stop" });
  expect((await coats()).map(([number]) => number)).toEqual([1, 2]);
  expect((await view()).state.spraying).toBeNull();
});

test("a coat put right keeps its place; only the newest one's clock starts anew", async () => {
  const first = await log("tack");
  ctx.advance(600_000);
  const start_ms = ctx.now_ms();
  const second = await log("full");
  const flash = async () => (await listClocks(ctx.db, ctx.now_ms())).map((c) => [c.kind, c.label, c.started_ms]);
  const running = await flash();
  expect(running).toEqual([["cure", "work", start_ms]]);
  const put = (supersedes: string, at_ms: number) =>
    recordEntry(ctx, { panelId, kind: "coat", body: { ...coatBody(9), role: "put right" }, by: "painter B", supersedes, at_ms });
  await put(first, start_ms - 700_000);
  expect(await flash()).toEqual(running);
  await put(second, start_ms - 60_000);
  expect(await flash()).toEqual([["cure", "work", start_ms - 60_000]]);
  expect((await coats()).map(([number, role]) => [number, role])).toEqual([
    [1, "put right"],
    [2, "put right"],
  ]);
});

describe("put right in place", () => {
  const readingOf = async () => (await view()).state.spots[0]!.films.after!.film.mean_m;

  test("a reading and a coat: figures follow, both versions stay in the ledger, the second by whom", async () => {
    await recordEntry(ctx, { panelId, kind: "reading", body: readingBody("before", "1", 90), by });
    const coat = await log("full");
    const entryId = await recordEntry(ctx, { panelId, kind: "reading", body: readingBody("after", "1", 310), by });
    expect(await readingOf()).toBeCloseTo(310e-6, 9);
    const readings = [{ thickness_m: 130e-6, entered: "130", unit: "µm" }];
    const put = { panelId, entryId, at_ms: ctx.now_ms(), by: "painter B" };
    expect(await putRight(ctx, { ...put, body: { readings } })).toBe(true);
    expect(await readingOf()).toBeCloseTo(130e-6, 9);
    expect(
      (await loadLedgerLines(ctx, panelId)).lines.filter((l) => l.kind === "reading").map((l) => [l.by, l.superseded, l.canBePutRight]),
    ).toEqual([
      ["painter B", false, true],
      [by, true, false],
      [by, false, true],
    ]);
    await expect(putRight(ctx, { ...put, body: { readings } })).rejects.toThrow("put right or taken out meanwhile");
    const film = (await view()).state.predictedClear!.clear_m;
    const settings = { ...coatBody(1).settings, handSpeed_m_s: 0.68 };
    await putRight(ctx, { panelId, entryId: coat, body: { settings }, at_ms: ctx.now_ms(), by });
    expect((await view()).state.predictedClear!.clear_m).toBeCloseTo(film / 2, 9);
  });

  test("nothing different stores nothing; a coat keeps between its neighbours; nothing lies ahead; other kinds are entered again", async () => {
    const first = await log("tack");
    ctx.advance(600_000);
    const second = await log("full");
    const second_ms = ctx.now_ms();
    ctx.advance(600_000);
    const put = (entryId: string, at_ms: number, body = {}) => putRight(ctx, { panelId, entryId, body, at_ms, by });
    expect(await put(second, second_ms)).toBe(false);
    await expect(put(second, second_ms - 700_000)).rejects.toMatchObject({
      field: "at",
      message: "The coat before it ended later than that",
    });
    await expect(put(first, second_ms + 1)).rejects.toMatchObject({ field: "at", message: "The coat after it ended earlier than that" });
    await expect(put(second, ctx.now_ms() + 1)).rejects.toMatchObject({ field: "at", message: "That is still to come" });
    const note = await recordEntry(ctx, { panelId, kind: "note", body: { text: "a" }, by });
    await expect(put(note, 0)).rejects.toThrow("taken out and entered again");
    await expect(put("none", 0)).rejects.toMatchObject({ status: 404 });
    expect(await put(second, second_ms - 100_000)).toBe(true);
    expect((await view()).state.coats.map((c) => c.entry.at_ms)).toEqual([second_ms - 600_000, second_ms - 100_000]);
  });
});
