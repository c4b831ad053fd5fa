import { z } from "zod";
import { requireRight } from "../access/actor";
import { ROLES, type Role } from "../access/rights";
import { hashSecret, isSecret, newPasscode } from "../access/secrets";
import type { ServerContext } from "../context";
import { forgetPins, unlockAll } from "../repos/device-repo";
import { type Person, endPerson, getOwner, getPerson, insertPerson, listPeople, updatePerson } from "../repos/person-repo";
import { Refusal, refuseOther } from "./refusal";
import { type Running, run } from "./run";

const name = z.string().trim().min(1, "Give a name").max(40, "At most 40 letters");
/** Of a painter or an apprentice: figures, so that it can be typed with gloves. */
export const pin = z
  .string()
  .regex(/^\d{4,8}$/, "A PIN has 4 to 8 figures")
  .refine(isNoRow, "Not all the same, nor one after another");
export const passcode = z
  .string()
  .min(8, "At least 8 letters or figures")
  .max(128, "At most 128")
  .refine(isNoRow, "Not all the same, nor one after another");

/** 0000, 1234, 8765: what everybody tries first. */
function isNoRow(secret: string): boolean {
  const steps = new Set([...secret].slice(1).map((c, i) => c.charCodeAt(0) - secret.charCodeAt(i)));
  return steps.size !== 1 || ![-1, 0, 1].includes([...steps][0]!);
}
export const secretOf = (role: Role) => (role === "owner" ? passcode : pin);
export const personBody = z.object({ name, role: z.enum(ROLES) });

/** The shop's owner, made once: from then on others can be let in. @throws Refusal where there is one */
export async function setUpOwner(ctx: ServerContext, given: { name: string; passcode: string }): Promise<string> {
  const body = personBody.parse({ name: given.name, role: "owner" });
  const secretHash = await hashSecret(passcode.parse(given.passcode));
  return run(ctx, null, async ({ db, now_ms, tell }) => {
    if (await getOwner(db)) throw new Refusal(null, "This shop has an owner already. Sign in instead.", 409);
    const id = ctx.newId();
    await insertPerson(db, { id, ...body, secretHash, now_ms });
    tell({ topic: "people", id });
    return id;
  });
}

/** Adds somebody; a form sent again adds nobody twice. */
export async function addPerson(
  ctx: ServerContext,
  given: { name: string; role: Exclude<Role, "owner">; pin: string; clientKey: string | null },
): Promise<string> {
  requireRight(ctx, "people");
  const body = personBody.parse(given);
  const secretHash = await hashSecret(pin.parse(given.pin));
  return run(ctx, { key: given.clientKey, what: "person", content: body }, async ({ db, now_ms, tell }) => {
    await refuseSameName(db, body.name, null);
    const id = ctx.newId();
    await insertPerson(db, { id, ...body, secretHash, now_ms });
    tell({ topic: "people", id });
    return id;
  });
}

/** Another name, role or secret; with another secret or role they give it again wherever they were signed in. @throws ChangedMeanwhile */
export async function changePerson(
  ctx: ServerContext,
  id: string,
  given: { name: string; role: Role; secret: string | null; version: string | null },
): Promise<void> {
  requireRight(ctx, "people");
  const body = personBody.parse(given);
  const secretHash = given.secret === null ? null : await hashSecret(secretOf(body.role).parse(given.secret));
  await run(ctx, null, async (running) => {
    const there = await personThere(running, id);
    refuseOther(given.version, { name: there.name, role: there.role }, String(there.version));
    if ((there.role === "owner") !== (body.role === "owner"))
      throw new Refusal("role", "The shop has one owner, who stays it. A painter has every right but people and backups.");
    await refuseSameName(running.db, body.name, id);
    await updatePerson(running.db, { ...there, ...body, secretHash: secretHash ?? there.secretHash });
    if (secretHash !== null || there.role !== body.role) await forgetPins(running.db, { personId: id });
    running.tell({ topic: "people", id });
  });
}

/** They may not come in any more; what they entered keeps their name. */
export async function letPersonGo(ctx: ServerContext, id: string): Promise<void> {
  requireRight(ctx, "people");
  await run(ctx, null, async (running) => {
    const { role } = await personThere(running, id);
    if (role === "owner") throw new Refusal(null, "The owner stays: nobody else could let others in.");
    await endPerson(running.db, id, running.now_ms);
    await forgetPins(running.db, { personId: id });
    running.tell({ topic: "people", id });
  });
}

/** Another passcode for the owner, made here; every device may try again. @returns it, to be shown once */
export async function newOwnerPasscode(ctx: ServerContext): Promise<string> {
  const owner = await getOwner(ctx.db);
  if (!owner) throw new Refusal(null, "This shop has no owner: start the program with --lan and open it on this machine.");
  const made = newPasscode();
  const secretHash = await hashSecret(made);
  await run(ctx, null, async ({ db, tell }) => {
    await updatePerson(db, { ...owner, secretHash });
    await forgetPins(db, { personId: owner.id });
    await unlockAll(db);
    tell({ topic: "people", id: owner.id });
  });
  return made;
}

/** Whether a person's secret is that. */
export const knowsSecret = (person: Pick<Person, "secretHash">, secret: string): Promise<boolean> => isSecret(secret, person.secretHash);

export async function personThere({ db }: Pick<Running, "db">, id: string): Promise<Person> {
  const there = await getPerson(db, id);
  if (!there) throw new Refusal(null, "This person is no longer there", 404);
  return there;
}

/** Whoever picks a name on a tablet must know whose it is. */
async function refuseSameName(db: Running["db"], given: string, self: string | null): Promise<void> {
  const same = (a: string, b: string) => a.localeCompare(b, "en", { sensitivity: "base" }) === 0;
  if ((await listPeople(db)).some((p) => p.id !== self && same(p.name, given)))
    throw new Refusal("name", "Somebody here has this name already");
}
