import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import fc from "fast-check";
import { type Actor, AT_THE_MACHINE } from "../access/actor";
import { CODE_LIVES_MS, MOST_WRONG_CODES, type Pairing, createPairing } from "../access/pairing";
import { SURE_MS, whoAsks } from "../access/who";
import type { ServerContext } from "../context";
import { databaseFile } from "../db/open";
import { ledgerOutline, readLedger } from "../repos/ledger-repo";
import { listPeople } from "../repos/person-repo";
import { backupTo } from "../storage/backup";
import { openShop } from "../storage/open-shop";
import { restoreFrom } from "../storage/restore";
import { testContext, testJob } from "../testing/fixtures";
import {
  PIN_HOLDS_MS,
  WRONG_LOCKS,
  WRONG_SLOWS,
  endDevice,
  ownersDevice,
  handOverTo,
  leaveDevice,
  pairDevice,
  pairMachine,
  signIn,
  unlockDevice,
} from "./devices";
import { exportJob } from "./job-bundles";
import { addPerson, changePerson, letPersonGo, newOwnerPasscode, setUpOwner } from "./people";
import { recordEntry, strikeEntry } from "./record-entry";
import { deleteJob } from "./remove-job";

const HERE = "127.0.0.2";
const OTHER = "127.0.0.3";
let now_ms = 0;

/** A code as it stands on the owner's screen. */
function newCode(pairing: Pairing): string {
  pairing.start();
  return pairing.waiting()!.code;
}

/** A shop with an owner on a computer, a painter and an apprentice, and a tablet that is let in. */
async function shopWithPeople(ctx: ServerContext) {
  const ownerId = await setUpOwner(ctx, { name: "Owner", passcode: "harbour-9-clear" });
  const computer = await ownersDevice(ctx, { ownerId, name: "Computer", address: "127.0.0.1" });
  const painterId = await addPerson(ctx, { name: "Painter A", role: "painter", pin: "4071", clientKey: null });
  const apprenticeId = await addPerson(ctx, { name: "Apprentice", role: "apprentice", pin: "5082", clientKey: null });
  const pairing = createPairing(() => now_ms);
  const tablet = await pairDevice(ctx, pairing, { code: newCode(pairing), name: "Tablet", address: HERE });
  const tabletId = (await whoAsks(ctx, tablet, HERE)).device!.id;
  const put = (personId: string, secret: string, address = HERE) => signIn(ctx, { deviceId: tabletId, personId, secret, address });
  return { ownerId, computer, painterId, apprenticeId, tablet, tabletId, put };
}
const inName = (ctx: ServerContext, role: Actor["role"], personId: string): ServerContext => ({
  ...ctx,
  actor: { role, personId, name: role, deviceId: "the tablet" },
});

const clocked = async () => {
  now_ms = Date.UTC(2026, 10, 1);
  return { ...(await testContext()), now_ms: () => now_ms };
};
const nameAt = async (ctx: ServerContext, token: string, address = HERE) => (await whoAsks(ctx, token, address)).person?.name ?? null;

test("nobody is in before the PIN, and after it the one whose it is, for a shift", async () => {
  const ctx = await clocked();
  const { tablet, painterId, put } = await shopWithPeople(ctx);
  expect(await nameAt(ctx, tablet)).toBeNull();
  await expect(put(painterId, "4072")).rejects.toMatchObject({ status: 403, field: "secret" });
  expect(await nameAt(ctx, tablet)).toBeNull();
  await put(painterId, "4071");
  expect(await nameAt(ctx, tablet)).toBe("Painter A");
  now_ms += PIN_HOLDS_MS - 1;
  expect(await nameAt(ctx, tablet)).toBe("Painter A");
  now_ms += 1;
  expect(await nameAt(ctx, tablet)).toBeNull();
});

test("what was copied off a device is worth nothing at another address, until a PIN is given there", async () => {
  const ctx = await clocked();
  const { tablet, painterId, put } = await shopWithPeople(ctx);
  await put(painterId, "4071");
  expect(await nameAt(ctx, tablet, OTHER)).toBeNull();
  expect(await nameAt(ctx, tablet)).toBe("Painter A");
  await put(painterId, "4071", OTHER); // the tablet was given another address
  expect([await nameAt(ctx, tablet, OTHER), await nameAt(ctx, tablet)]).toEqual(["Painter A", null]);
});

test("wrong PINs: five slow down, fifty lock, however many are tried at once; the right one is not looked at meanwhile", async () => {
  const ctx = await clocked();
  const { painterId, tabletId, put } = await shopWithPeople(ctx);
  const tries = await Promise.allSettled(Array.from({ length: 40 }, () => put(painterId, "0713")));
  const status = (t: PromiseSettledResult<void>) => (t.status === "rejected" ? (t.reason as { status: number }).status : 200);
  expect(tries.filter((t) => status(t) === 403)).toHaveLength(WRONG_SLOWS);
  expect(tries.filter((t) => status(t) === 429)).toHaveLength(40 - WRONG_SLOWS);
  await expect(put(painterId, "4071")).rejects.toMatchObject({ status: 429 });
  let looked = WRONG_SLOWS;
  while (looked < WRONG_LOCKS) {
    now_ms += 61_000;
    await expect(put(painterId, "0713")).rejects.toMatchObject({ status: 403 });
    looked++;
  }
  now_ms += 3_600_000;
  await expect(put(painterId, "4071")).rejects.toThrow("locked");
  await unlockDevice(ctx, tabletId);
  await expect(put(painterId, "4071")).resolves.toBeUndefined();
});

test("a pairing code lets one device in, within five minutes, and ten wrong ones end it", async () => {
  const ctx = await clocked();
  await shopWithPeople(ctx);
  const pairing = createPairing(() => now_ms);
  const pair = async (code: string) => pairDevice(ctx, pairing, { code, name: "Tablet", address: HERE });
  const code = newCode(pairing);
  await pair(`${code.slice(0, 3)} ${code.slice(3)}`);
  await expect(pair(code)).rejects.toMatchObject({ field: "code", status: 403 });
  const late = newCode(pairing);
  now_ms += CODE_LIVES_MS;
  await expect(pair(late)).rejects.toMatchObject({ field: "code" });
  const guessed = newCode(pairing);
  const wrong = guessed === "000001" ? "000002" : "000001";
  for (let i = 0; i < MOST_WRONG_CODES; i++) await expect(pair(wrong)).rejects.toMatchObject({ field: "code" });
  await expect(pair(guessed)).rejects.toMatchObject({ field: "code" });
});

test("two taps hand a tablet on to somebody who may do no more, and whose PIN was given there; else the PIN is asked", async () => {
  const ctx = await clocked();
  const { painterId, apprenticeId, tabletId, tablet, put } = await shopWithPeople(ctx);
  const on = (from: ServerContext, personId: string) => handOverTo(from, { deviceId: tabletId, personId, address: HERE });
  await put(apprenticeId, "5082");
  await put(painterId, "4071");
  const painter = inName(ctx, "painter", painterId);
  const apprentice = inName(ctx, "apprentice", apprenticeId);
  expect(await on(painter, apprenticeId)).toBe(true);
  expect(await nameAt(ctx, tablet)).toBe("Apprentice");
  expect(await on(apprentice, painterId)).toBe(false);
  expect(await nameAt(ctx, tablet)).toBe("Apprentice");
  await leaveDevice(ctx, tabletId);
  expect(await on(painter, apprenticeId)).toBe(false);
  expect(await nameAt(ctx, tablet)).toBeNull();
});

test("a device that is ended, a person who left, another PIN or role: out at once", async () => {
  const ctx = await clocked();
  const { painterId, apprenticeId, tabletId, tablet, put } = await shopWithPeople(ctx);
  await put(painterId, "4071");
  await changePerson(ctx, painterId, { name: "Painter A", role: "painter", secret: "6093", version: null });
  expect(await nameAt(ctx, tablet)).toBeNull();
  await put(painterId, "6093");
  await changePerson(ctx, painterId, { name: "Painter A", role: "apprentice", secret: null, version: null });
  expect(await nameAt(ctx, tablet)).toBeNull();
  await put(apprenticeId, "5082");
  await letPersonGo(ctx, apprenticeId);
  expect(await nameAt(ctx, tablet)).toBeNull();
  await put(painterId, "6093");
  await endDevice(ctx, tabletId);
  expect(await whoAsks(ctx, tablet, HERE)).toMatchObject({ device: null, person: null });
  await expect(put(painterId, "6093")).rejects.toMatchObject({ status: 404 });
});

test("whoever is ended while a request of theirs is being read is out with the next", async () => {
  const ctx = await clocked();
  const { painterId, tabletId, tablet, put } = await shopWithPeople(ctx);
  await put(painterId, "4071");
  const under_way = whoAsks(ctx, tablet, HERE);
  await Promise.all([under_way, endDevice(ctx, tabletId)]);
  expect(await whoAsks(ctx, tablet, HERE)).toMatchObject({ device: null, person: null });
});

test("what only the owner does asks for the passcode again after a quarter of an hour; the machine itself comes in by it", async () => {
  const ctx = await clocked();
  const { computer } = await shopWithPeople(ctx);
  expect(await whoAsks(ctx, computer, "127.0.0.1")).toMatchObject({ sure: true, person: { role: "owner" } });
  now_ms += SURE_MS;
  expect(await whoAsks(ctx, computer, "127.0.0.1")).toMatchObject({ sure: false, person: { role: "owner" } });
  await expect(pairMachine(ctx, { passcode: "harbour-9-clea", name: "Computer", address: "127.0.0.1" })).rejects.toMatchObject({
    status: 403,
  });
  const again = await pairMachine(ctx, { passcode: "harbour-9-clear", name: "Computer", address: "127.0.0.1" });
  expect(await nameAt(ctx, again, "127.0.0.1")).toBe("Owner");
});

test("secrets that everybody tries first, names of two, a second owner, and deeds without the right are refused at their field", async () => {
  const ctx = await clocked();
  const { painterId } = await shopWithPeople(ctx);
  const add = (name: string, pin: string) => addPerson(ctx, { name, role: "painter", pin, clientKey: null });
  for (const pin of ["0000", "1234", "87654321", "12a4", "123", "123456789"])
    await expect(add("New", pin)).rejects.toThrow(/figures|all the same/);
  await expect(add("painter a", "4071")).rejects.toMatchObject({ field: "name" });
  await expect(setUpOwner(ctx, { name: "Other", passcode: "another-passcode" })).rejects.toMatchObject({ status: 409 });
  await expect(
    addPerson(inName(ctx, "painter", painterId), { name: "New", role: "painter", pin: "4071", clientKey: null }),
  ).rejects.toMatchObject({ status: 403 });
  await expect(changePerson(ctx, painterId, { name: "Painter B", role: "painter", secret: null, version: "7" })).rejects.toMatchObject({
    status: 409,
  });
});

test("a forgotten passcode is made anew, and locked devices may try again", async () => {
  const ctx = await clocked();
  const { ownerId, painterId, put } = await shopWithPeople(ctx);
  for (let i = 0; i < WRONG_LOCKS; i++) {
    await expect(put(painterId, "0713")).rejects.toMatchObject({ status: 403 });
    now_ms += 61_000;
  }
  const passcode = await newOwnerPasscode(ctx);
  await expect(put(ownerId, "harbour-9-clear")).rejects.toMatchObject({ status: 403 });
  await put(ownerId, passcode);
});

test("no secret and no token stands in the file as it was typed or shown", async () => {
  const ctx = await clocked();
  const { tablet } = await shopWithPeople(ctx);
  const rows = JSON.stringify([
    await ctx.db.selectFrom("person").selectAll().execute(),
    await ctx.db.selectFrom("device").selectAll().execute(),
  ]);
  for (const secret of ["4071", "harbour-9-clear", tablet]) expect(rows).not.toContain(secret);
  expect((await listPeople(ctx.db)).map((p) => p.secretHash.split("$")[1])).toEqual(["argon2id", "argon2id", "argon2id"]);
});

test("every entry carries who and where, also in the job's file; an apprentice puts right what is theirs alone, and deletes nothing", async () => {
  const ctx = await clocked();
  const { jobId, panelId } = await testJob(ctx);
  const painter = inName(ctx, "painter", "p1");
  const apprentice = inName(ctx, "apprentice", "p2");
  const note = (c: ServerContext, text: string) => recordEntry(c, { panelId, kind: "note", body: { text }, by: c.actor.name! });
  const before = await note({ ...ctx, actor: { ...AT_THE_MACHINE, name: "somebody" } }, "before there were people");
  const painters = await note(painter, "the painter's");
  const own = await note(apprentice, "their own");
  const strike = (c: ServerContext, id: string) => strikeEntry(c, id, { by: "x", reason: "wrong" });
  for (const id of [before, painters]) await expect(strike(apprentice, id)).rejects.toMatchObject({ status: 403 });
  await strike(apprentice, own);
  await strike(painter, before);
  const { entries } = await readLedger(ctx.db, panelId);
  expect(entries.find((e) => e.id === own)!.who).toEqual({ personId: "p2", deviceId: "the tablet" });
  expect(entries.find((e) => e.id === before)!.who).toBeUndefined();
  const file = (await exportJob(ctx, jobId))!;
  expect(file.panels[0]!.entries.find((e) => e.id === painters)!.who).toEqual({ personId: "p1", deviceId: "the tablet" });
  await expect(deleteJob(apprentice, { jobId, by: "x" })).rejects.toMatchObject({ status: 403 });
  expect((await ledgerOutline(ctx.db, panelId)).length).toBeGreaterThan(0);
});

test("law: whatever is done in whatever order, a device shows a person only by that person's PIN on it within the shift, at that address", async () => {
  const step = fc.oneof(
    fc.record({ do: fc.constant("pin" as const), who: fc.nat(2), right: fc.boolean(), at: fc.nat(1) }),
    fc.record({ do: fc.constant("take" as const), who: fc.nat(2), at: fc.nat(1) }),
    fc.record({ do: fc.constant("leave" as const) }),
    fc.record({ do: fc.constant("wait" as const), h: fc.integer({ min: 1, max: 13 }) }),
  );
  await fc.assert(
    fc.asyncProperty(fc.array(step, { minLength: 4, maxLength: 14 }), async (steps) => {
      const ctx = await clocked();
      const { ownerId, painterId, apprenticeId, tablet, tabletId, put } = await shopWithPeople(ctx);
      const people = [
        { id: ownerId, secret: "harbour-9-clear", rank: 2 },
        { id: painterId, secret: "4071", rank: 1 },
        { id: apprenticeId, secret: "5082", rank: 0 },
      ];
      const given = new Map<string, number>();
      const places = [HERE, OTHER];
      let where: string | null = null;
      for (const s of steps) {
        const at = "at" in s ? places[s.at]! : HERE;
        const who = "who" in s ? people[s.who]! : null;
        const { person, device } = await whoAsks(ctx, tablet, at);
        const actor = person
          ? { role: person.role, personId: person.id, name: person.name, deviceId: device!.id }
          : { ...AT_THE_MACHINE, personId: null };
        if (s.do === "pin") {
          await put(who!.id, s.right ? who!.secret : "0713", at).catch(() => {});
          if (s.right && (await whoAsks(ctx, tablet, at)).person?.id === who!.id) {
            given.set(who!.id, now_ms);
            where = at;
          }
        } else if (s.do === "take") {
          if (await handOverTo({ ...ctx, actor }, { deviceId: tabletId, personId: who!.id, address: at })) {
            expect(who!.rank).toBeLessThanOrEqual(people.find((p) => p.id === actor.personId)!.rank);
            where = at;
          }
        } else if (s.do === "leave") {
          await leaveDevice(ctx, tabletId);
          given.clear();
        } else now_ms += s.h * 3_600_000;
        for (const place of places) {
          const shown = (await whoAsks(ctx, tablet, place)).person;
          if (!shown) continue;
          expect(place).toBe(where);
          expect(now_ms - (given.get(shown.id) ?? -Infinity)).toBeLessThan(PIN_HOLDS_MS);
        }
      }
    }),
    { numRuns: 12 },
  );
});

test("a backup that is brought back brings no ended device back, and takes nobody's PIN away", async () => {
  const folder = mkdtempSync(join(tmpdir(), "yakamoz-people-"));
  try {
    now_ms = Date.UTC(2026, 10, 1);
    const context = { now_ms: () => now_ms };
    const shop = await openShop(folder, { context });
    const { tablet, tabletId, computer } = await shopWithPeople(shop.ctx);
    const backup = join(folder, "backups", "before.sqlite");
    backupTo(databaseFile(folder), backup);
    await endDevice(shop.ctx, tabletId);
    await addPerson(shop.ctx, { name: "Painter B", role: "painter", pin: "7104", clientKey: null });
    await shop.close();
    await restoreFrom(backup, folder, now_ms);
    const again = await openShop(folder, { context });
    expect((await whoAsks(again.ctx, tablet, HERE)).device).toBeNull();
    expect((await whoAsks(again.ctx, computer, "127.0.0.1")).person?.name).toBe("Owner");
    expect((await listPeople(again.ctx.db)).map((p) => p.name).sort()).toEqual(["Apprentice", "Owner", "Painter A", "Painter B"]);
    await again.close();
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
});
