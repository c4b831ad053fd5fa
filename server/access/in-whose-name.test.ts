import { addPerson, setUpOwner } from "../commands/people";
import { testContext } from "../testing/fixtures";
import { AT_THE_MACHINE, type Actor } from "./actor";
import { inWhoseName } from "./in-whose-name";
import { may } from "./rights";

/** A shop of an owner, a painter and an apprentice; the PINs of the first two were given on one tablet. */
async function shop() {
  const ctx = await testContext();
  const owner = await setUpOwner(ctx, { name: "Owner", passcode: "harbour-9-clear" });
  const painter = await addPerson(ctx, { name: "Painter A", role: "painter", pin: "4711", clientKey: null });
  const apprentice = await addPerson(ctx, { name: "Apprentice", role: "apprentice", pin: "4072", clientKey: null });
  const device = { name: "tablet", kind: "screen", token_hash: "x", paired_at_ms: 0, seen_ms: 0, address: "127.0.0.2", person_id: null };
  for (const id of ["tablet", "other"])
    await ctx.db
      .insertInto("device")
      .values({ ...device, id, token_hash: id, wrong: 0, wait_until_ms: 0, locked_at_ms: null, ended_at_ms: null })
      .execute();
  for (const person_id of [owner, painter])
    await ctx.db.insertInto("device_person").values({ device_id: "tablet", person_id, pin_at_ms: 1 }).execute();
  const here = (personId: string, role: Actor["role"], deviceId = "tablet"): Actor => ({ role, personId, name: role, deviceId });
  return { ctx, owner, painter, apprentice, here };
}
test("what was entered earlier stands in the name of who entered it, and may do no more than either of the two", async () => {
  const { ctx, owner, painter, apprentice, here } = await shop();
  const sent = (now: Actor, by: string | null) => inWhoseName(ctx, now, by);
  expect(await sent(here(painter, "painter"), null)).toMatchObject({ personId: painter, role: "painter" });
  expect(await sent(here(owner, "owner"), painter)).toMatchObject({ personId: painter, name: "Painter A", role: "painter" });
  // The owner's entries, sent while an apprentice stands there: the owner's name, the apprentice's rights.
  const lent = await sent(here(apprentice, "apprentice"), owner);
  expect([lent.personId, may(lent.role, "delete")]).toEqual([owner, false]);
  await ctx.db.destroy();
});

test("a name of somebody whose PIN was never given there, who is gone, or who never was, is not taken", async () => {
  const { ctx, owner, painter, apprentice, here } = await shop();
  const now = here(painter, "painter");
  expect(await inWhoseName(ctx, now, apprentice)).toEqual(now);
  expect(await inWhoseName(ctx, here(painter, "painter", "other"), owner)).toMatchObject({ personId: painter });
  expect(await inWhoseName(ctx, now, "nobody-at-all")).toEqual(now);
  await ctx.db.updateTable("person").set({ ended_at_ms: 5 }).where("id", "=", owner).execute();
  expect(await inWhoseName(ctx, now, owner)).toEqual(now);
  expect(await inWhoseName(ctx, AT_THE_MACHINE, painter)).toEqual(AT_THE_MACHINE); // nobody signs in there
  await ctx.db.destroy();
});
