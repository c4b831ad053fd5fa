import { AGE_HEADER, KEY_HEADER, PERSON_HEADER } from "./sent-headers";
import { coatBody, testContext, testJob } from "./testing/fixtures";
import { recordEntry } from "./commands/record-entry";
import { listEntries } from "./repos/ledger-repo";
import { asSent, carriedOutWhole, idOfKey, ofSending, sentOf, wasCarriedOut } from "./sent";

const KEY = "V1StGXR8_Z5jdHi6B-myT";
const NOW_MS = Date.UTC(2026, 4, 6, 8);

test("a key, an age and a name are taken in their form alone: an age of the future, or of more than a month, is none", () => {
  const of = (headers: Record<string, string>, method = "POST") => sentOf(method, headers, NOW_MS);
  expect(of({})).toBeNull();
  expect(of({ [KEY_HEADER]: KEY }, "GET")).toBeNull();
  for (const key of ["short", "x".repeat(81), "with a space in it", "semi;colon;key"]) expect(of({ [KEY_HEADER]: key })).toBeNull();
  expect(of({ [KEY_HEADER]: KEY, [AGE_HEADER]: "90.5", [PERSON_HEADER]: "person-one-two" })).toEqual({
    key: KEY,
    at_ms: NOW_MS - 90_500,
    personId: "person-one-two",
  });
  for (const age of ["-5", "NaN", "Infinity", "x", String(40 * 86_400)])
    expect(of({ [KEY_HEADER]: KEY, [AGE_HEADER]: age })?.at_ms).toBe(NOW_MS);
});

test("ids of a key are the same wherever they are made, each its own, and of the form of RFC 9562", () => {
  const ids = [0, 1, 2].map((n) => idOfKey(KEY, 0, n));
  expect(ids).toEqual([0, 1, 2].map((n) => idOfKey(KEY, 0, n)));
  expect(new Set([...ids, idOfKey(`${KEY}x`, 0, 0), idOfKey(KEY, 1, 0)]).size).toBe(5);
  for (const id of ids) expect(id).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-8[0-9a-f]{3}-a[0-9a-f]{3}-[0-9a-f]{12}$/);
});

test("what is sent under a key is carried out once, at its own time, and known again; without one each time", async () => {
  const ctx = await testContext();
  const { panelId } = await testJob(ctx);
  const sent = { key: KEY, at_ms: ctx.now_ms() - 60_000, personId: null };
  const log = () => recordEntry(ofSending(ctx), { panelId, kind: "coat", body: coatBody(1), by: "painter A" });
  expect(await wasCarriedOut(ctx, sent)).toBe(false);
  let first = "";
  await carriedOutWhole(ctx, sent, async () => {
    first = await log();
    return true;
  });
  expect(await wasCarriedOut(ctx, sent)).toBe(true);
  expect(await asSent(sent, log)).toBe(first);
  const entries = await listEntries(ctx.db, panelId);
  expect(entries.map((e) => [e.id, e.at_ms])).toEqual([[first, sent.at_ms]]);
  await asSent(null, log);
  await log();
  expect(await listEntries(ctx.db, panelId)).toHaveLength(3);
  await ctx.db.destroy();
});

test("a request of several commands whose server died between them is not taken for carried out: sent again it does the rest, and nothing twice", async () => {
  const ctx = await testContext();
  const { panelId } = await testJob(ctx);
  const sent = { key: KEY, at_ms: ctx.now_ms() - 60_000, personId: null };
  const coat = (number: number) => recordEntry(ofSending(ctx), { panelId, kind: "coat", body: coatBody(number), by: "painter A" });
  const died = new Error("killed");
  const both = (diesBetween: boolean) => async () => {
    await coat(1);
    if (diesBetween) throw died;
    await coat(2);
    return true;
  };
  await expect(carriedOutWhole(ctx, sent, both(true))).rejects.toBe(died);
  expect(await wasCarriedOut(ctx, sent)).toBe(false);
  await carriedOutWhole(ctx, sent, both(false));
  expect(await wasCarriedOut(ctx, sent)).toBe(true);
  expect(await listEntries(ctx.db, panelId)).toHaveLength(2);
  // What was refused, and what stored nothing, is asked again.
  const other = { ...sent, key: `${KEY}-other` };
  await carriedOutWhole(ctx, other, async () => (await coat(3), false));
  expect(await wasCarriedOut(ctx, other)).toBe(false);
  await ctx.db.destroy();
});
