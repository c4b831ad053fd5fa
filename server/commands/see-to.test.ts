import { recordEntry, strikeEntry } from "#server/commands/record-entry";
import { markSeenTo } from "#server/commands/see-to";
import { listEntries } from "#server/repos/ledger-repo";
import { listStandings } from "#server/repos/summary-repo";
import { coatBody, testContext, testJob } from "#server/testing/fixtures";

const by = "painter A";
let ctx: Awaited<ReturnType<typeof testContext>>;
beforeEach(async () => {
  ctx = await testContext();
});
afterEach(() => ctx.db.destroy());

const marked = async (kind: "peeling" | "nib") => {
  const { jobId, panelId } = await testJob(ctx);
  await recordEntry(ctx, { panelId, kind: "coat", body: coatBody(1), by });
  const body = { kind, at: { x_m: 0.4, y_m: 0.3 }, length_m: null, width_m: null, height_m: null, measured: false };
  const markId = await recordEntry(ctx, { panelId, kind: "defect", body, by });
  const holds = async () => (await listStandings(ctx.db, [jobId]))[0]!.standing.action!.holds.map((h) => h.by);
  const tell = (as: "hard" | "dry" | "stripped" | "resprayed", clientKey: string | null = null) =>
    markSeenTo(ctx, { panelId, body: { markId, as }, by, clientKey });
  return { panelId, markId, holds, tell };
};

test("peeling holds the next coat until it is told that it was taken back; taken out, it holds again", async () => {
  const { holds, tell } = await marked("peeling");
  expect(await holds()).toEqual(["fault"]);
  const told = await tell("stripped");
  expect(await holds()).toEqual([]);
  await strikeEntry(ctx, told, { by, reason: "" });
  expect(await holds()).toEqual(["fault"]);
});

test("a form sent twice tells it once; a second window, another end, another kind and a mark taken out are refused in words", async () => {
  const { panelId, markId, tell } = await marked("peeling");
  await expect(tell("hard")).rejects.toMatchObject({ field: "as", message: "This fault waits for something else" });
  const told = await tell("stripped", "once");
  expect(await tell("stripped", "once")).toBe(told);
  expect((await listEntries(ctx.db, panelId)).filter((e) => e.kind === "seenTo")).toHaveLength(1);
  await expect(tell("stripped", "another")).rejects.toMatchObject({ status: 409 });
  await strikeEntry(ctx, markId, { by, reason: "" });
  await expect(tell("stripped", "later")).rejects.toMatchObject({
    status: 409,
    message: expect.stringContaining("taken out meanwhile") as string,
  });
  const nib = await marked("nib");
  await expect(nib.tell("dry")).rejects.toThrow("holds nothing back");
});
