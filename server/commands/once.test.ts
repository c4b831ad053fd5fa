import { saveCard } from "#server/commands/cards";
import { saveGun } from "#server/commands/guns";
import { addPanel } from "#server/commands/jobs";
import { recordEntry, strikeEntry } from "#server/commands/record-entry";
import { recordMix } from "#server/commands/record-mix";
import { addContainer } from "#server/commands/shelf";
import { startCoat, stopCoat } from "#server/commands/booth";
import { getContainer, listContainers } from "#server/repos/container-repo";
import { listGuns } from "#server/repos/gun-repo";
import { listEntries, readLedger } from "#server/repos/ledger-repo";
import { listClocks } from "#server/repos/clock-repo";
import { getPanel } from "#server/repos/panel-repo";
import { cardBody, coatBody, readingBody, testContext, testJob } from "#server/testing/fixtures";
import { loadLedgerLines } from "#server/views/ledger-view";
import { loadPanelView } from "#server/views/panel-view";

let ctx: Awaited<ReturnType<typeof testContext>>;
beforeEach(async () => {
  ctx = await testContext();
});
const by = "painter A";

describe("a form's key is bound to what it asked", () => {
  test("another entry under a used key is refused in words and stores nothing; the same one is answered as before", async () => {
    const { panelId } = await testJob(ctx);
    const note = (text: string) => recordEntry(ctx, { panelId, kind: "note", body: { text }, by, clientKey: "k" });
    const id = await note("a");
    expect(await note("a")).toBe(id);
    await expect(note("b")).rejects.toMatchObject({ status: 409, message: expect.stringContaining("other content") as string });
    await expect(recordEntry(ctx, { panelId, kind: "reading", body: readingBody("after", "1", 120), by, clientKey: "k" })).rejects.toThrow(
      "other content",
    );
    expect(await listEntries(ctx.db, panelId)).toHaveLength(1);
  });

  test("the same key on another panel is another question", async () => {
    const { jobId, panelId } = await testJob(ctx);
    const second = await addPanel(ctx, jobId, { ...(await getPanel(ctx.db, panelId))!, name: "Door" });
    await recordEntry(ctx, { panelId, kind: "note", body: { text: "a" }, by, clientKey: "k" });
    await expect(recordEntry(ctx, { panelId: second, kind: "note", body: { text: "a" }, by, clientKey: "k" })).rejects.toThrow(
      "other content",
    );
  });

  test("guns, cans and cards: sent twice they are kept once, changed they are refused", async () => {
    const { productId } = await testJob(ctx);
    const settings = { turns: 2.5, pressure_Pa: 1.93e5, distance_m: 0.175, overlap: 0.5, handSpeed_m_s: 0.34 };
    const body = { name: "Gun", nozzle_m: null, allTurns: 4, cups: [], fan: null, checks: [], settings };
    const gun = { id: null, version: null, body, clientKey: "gun" };
    expect(await saveGun(ctx, gun)).toBe(await saveGun(ctx, gun));
    expect(await listGuns(ctx.db)).toHaveLength(1);
    const can = { productId, batch: "b", size_m3: 1e-3, left_m3: 1e-3, opened_ms: null, keeping: "shelf" as const, clientKey: "can" };
    expect(await addContainer(ctx, can)).toBe(await addContainer(ctx, can));
    await expect(addContainer(ctx, { ...can, batch: "c" })).rejects.toThrow("other content");
    expect(await listContainers(ctx.db)).toHaveLength(1);
    const card = { body: cardBody, by, clientKey: "card" };
    expect(await saveCard(ctx, card)).toBe(await saveCard(ctx, card));
    await expect(saveCard(ctx, { ...card, body: { ...cardBody, name: "Other" } })).rejects.toThrow("other content");
  });

  test("a coat started or stopped twice is one coat, however long the second try takes", async () => {
    const { jobId, panelId } = await testJob(ctx);
    const input = (clientKey: string) => ({ jobId, panelId, number: 1, by, clientKey });
    expect(await startCoat(ctx, input("s"))).toBe(await startCoat(ctx, input("s")));
    ctx.advance(60_000);
    const stopped = await stopCoat(ctx, input("e"));
    ctx.advance(5000);
    expect(await stopCoat(ctx, input("e"))).toBe(stopped);
    expect((await listEntries(ctx.db, panelId)).map((e) => e.kind)).toEqual(["coatStart", "coat"]);
  });
});

describe("a mix and its can", () => {
  const mix = (panelId: string, canId: string | null, formKey: string) =>
    recordMix(ctx, {
      panelId,
      formKey,
      by,
      volume_m3: 150e-6,
      reducer: 0,
      potLife_s: 3600,
      parts: [null, canId].map((id, i) => ({ name: "x", volume_m3: (2 - i) * 50e-6, mass_kg: null, poured_kg: null, canId: id })),
    });
  const oneCan = async (productId: string) =>
    addContainer(ctx, { productId, batch: "b", size_m3: 1e-3, left_m3: 1e-3, opened_ms: null, keeping: "shelf" });

  test("stand or fall together: sent twice the can gives once, and a can that is gone refuses the mix", async () => {
    const { panelId, productId } = await testJob(ctx);
    const can = await oneCan(productId);
    await mix(panelId, can, "m1");
    await mix(panelId, can, "m1");
    expect((await getContainer(ctx.db, can))!.left_m3).toBeCloseTo(0.95e-3, 12);
    await expect(mix(panelId, "none", "m2")).rejects.toMatchObject({ field: "canId" });
    expect((await listEntries(ctx.db, panelId)).filter((e) => e.kind === "mix")).toHaveLength(1);
  });

  test("a fault between them leaves neither", async () => {
    const { panelId, productId } = await testJob(ctx);
    const can = await oneCan(productId);
    await ctx.db.schema.alterTable("container").renameTo("container_away").execute();
    await expect(mix(panelId, can, "m1")).rejects.toThrow();
    await ctx.db.schema.alterTable("container_away").renameTo("container").execute();
    expect(await listEntries(ctx.db, panelId)).toEqual([]);
    expect((await getContainer(ctx.db, can))!.left_m3).toBe(1e-3);
    await mix(panelId, can, "m1"); // the same form, sent again, is carried out now
    expect((await getContainer(ctx.db, can))!.left_m3).toBeCloseTo(0.95e-3, 12);
  });
});

test("a wall clock that goes back two hours does not put the older climate back in force", async () => {
  const { jobId, panelId } = await testJob(ctx);
  const climate = (air_K: number) =>
    recordEntry(ctx, { panelId, kind: "climate", body: { air_K, part_K: null, relativeHumidity: 0.5 }, by });
  await climate(290);
  ctx.advance(-2 * 3_600_000);
  await climate(300);
  const { state } = (await loadPanelView(ctx, jobId, panelId))!;
  expect(state.climate!.body.air_K).toBe(300);
  expect((await listEntries(ctx.db, panelId)).map((e) => e.seq)).toEqual([1, 2]);
});

test("a row of a kind that this version does not know is shown as such, counts for nothing and breaks nothing", async () => {
  const { jobId, panelId } = await testJob(ctx);
  await recordEntry(ctx, { panelId, kind: "coat", body: coatBody(1), by });
  const row = await ctx.db.selectFrom("ledger_entry").selectAll().executeTakeFirstOrThrow();
  const strange = { client_key: null, seq: 2, body_json: "{}" };
  await ctx.db
    .insertInto("ledger_entry")
    .values({ ...row, ...strange, id: "strange", kind: "hologram" })
    .execute();
  await ctx.db
    .insertInto("ledger_entry")
    .values({ ...row, ...strange, seq: 3, id: "broken", kind: "coat", body_json: "{not json" })
    .execute();
  const view = (await loadPanelView(ctx, jobId, panelId))!;
  expect(view.state.coats).toHaveLength(1);
  expect((await readLedger(ctx.db, panelId)).unread.map((u) => [u.id, u.why])).toEqual([
    ["strange", "unknown kind"],
    ["broken", "body not understood"],
  ]);
  expect((await loadLedgerLines(ctx, panelId)).lines.filter((l) => l.unread)).toHaveLength(2);
  await recordEntry(ctx, { panelId, kind: "note", body: { text: "goes on" }, by });
});

test("the clock of a struck coat goes, and comes back with it", async () => {
  const { panelId } = await testJob(ctx);
  const coat = await recordEntry(ctx, { panelId, kind: "coat", body: coatBody(1), by });
  const running = async () => (await listClocks(ctx.db, ctx.now_ms())).length;
  expect(await running()).toBe(1);
  const strike = await strikeEntry(ctx, coat, { by, reason: "" });
  expect(await running()).toBe(0);
  await strikeEntry(ctx, strike, { by, reason: "" });
  expect(await running()).toBe(1);
});
