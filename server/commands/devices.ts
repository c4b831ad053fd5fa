import { z } from "zod";
import { requireRight } from "../access/actor";
import type { Pairing } from "../access/pairing";
import { isNoMore } from "../access/rights";
import { digestOfToken, newToken } from "../access/secrets";
import type { ServerContext } from "../context";
import {
  type DeviceKind,
  type DeviceRow,
  NO_WRONG,
  forgetPins,
  getDevice,
  insertDevice,
  keepPinGiven,
  pinGivenAt,
  updateDevice,
} from "../repos/device-repo";
import { type Person, getOwner } from "../repos/person-repo";
import { knowsSecret, personThere } from "./people";
import { Refusal } from "./refusal";
import { type Running, run } from "./run";

const deviceName = z.string().trim().min(1, "Give the device a name").max(40, "At most 40 letters");

/** After so many wrong PINs in a row each further one waits, twice as long every time; after so many none is looked at any more. */
export const WRONG_SLOWS = 5;
export const WRONG_LOCKS = 50;
const LONGEST_WAIT_MS = 60_000;
const waitAfter = (wrong: number): number => (wrong < WRONG_SLOWS ? 0 : Math.min(LONGEST_WAIT_MS, 1000 * 2 ** (wrong - WRONG_SLOWS)));

/** A PIN holds for a shift. */
export const PIN_HOLDS_MS = 12 * 3_600_000;

/** @returns what the device shows with every request; only its digest is kept */
const newDevice = async (
  { db, now_ms, tell }: Running,
  { id, name, kind, address }: { id: string; name: string; kind: DeviceKind; address: string },
): Promise<string> => {
  const token = newToken();
  await insertDevice(db, {
    id,
    name: deviceName.parse(name),
    kind,
    token_hash: digestOfToken(token),
    paired_at_ms: now_ms,
    seen_ms: now_ms,
    address,
    person_id: null,
    ...NO_WRONG,
    ended_at_ms: null,
  });
  tell({ topic: "people", id });
  return token;
};

/** Lets a device in by a code that the owner has asked for. @returns its token @throws Refusal at the code */
export function pairDevice(ctx: ServerContext, pairing: Pairing, given: { code: string; name: string; address: string }): Promise<string> {
  const name = deviceName.parse(given.name);
  pairing.take(given.code.replace(/\s/g, ""));
  return run(ctx, null, (running) => newDevice(running, { id: ctx.newId(), kind: "screen", ...given, name }));
}

/** Lets the machine's own browser in: nobody else can be asked there, so it takes the owner's passcode instead of a code. */
export async function pairMachine(ctx: ServerContext, given: { passcode: string; name: string; address: string }): Promise<string> {
  const owner = await getOwner(ctx.db);
  if (!owner) throw new Refusal(null, "This shop has no owner yet.");
  await slowly(async () => {
    if (!(await knowsSecret(owner, given.passcode))) throw new Refusal("passcode", "This is not the owner's passcode.", 403);
  });
  return ownersDevice(ctx, { ...given, ownerId: owner.id });
}

/** A device with the owner, who has just given the passcode, at it. */
export const ownersDevice = (
  ctx: ServerContext,
  { ownerId, name, address }: { ownerId: string; name: string; address: string },
): Promise<string> =>
  run(ctx, null, async (running) => {
    const deviceId = ctx.newId();
    const token = await newDevice(running, { id: deviceId, kind: "screen", name, address });
    await standThere(running, { deviceId, personId: ownerId, address });
    await keepPinGiven(running.db, deviceId, ownerId, running.now_ms);
    return token;
  });

/** A bridge has no screen to pair on: its key is shown once, to be copied into its settings. */
export function addBridge(ctx: ServerContext, name: string): Promise<string> {
  requireRight(ctx, "people");
  return run(ctx, null, (running) => newDevice(running, { id: ctx.newId(), name, kind: "bridge", address: "" }));
}

/** Another token for a device, on a safer way: the one before is worth nothing any more. */
export async function renewToken(ctx: ServerContext, deviceId: string): Promise<string> {
  const token = newToken();
  await run(ctx, null, async ({ db, tell }) => {
    await updateDevice(db, deviceId, { token_hash: digestOfToken(token) });
    tell({ topic: "people", id: deviceId });
  });
  return token;
}

/** One wrong try at the machine's own door a second, however many are made at once. */
let last: Promise<unknown> = Promise.resolve();
const TRY_MS = 1000;
function slowly<T>(work: () => Promise<T>): Promise<T> {
  const done = last.then(work);
  last = done.catch(() => new Promise((wait) => setTimeout(wait, TRY_MS).unref()));
  return done;
}

/**
 * Puts a person at a device by their PIN or passcode. The try counts as wrong before it is looked at, so that many at once are many.
 * @throws Refusal 429 while it waits, 403 when it is wrong or the device is locked
 */
export async function signIn(
  ctx: ServerContext,
  given: { deviceId: string; personId: string; secret: string; address: string },
): Promise<void> {
  const { deviceId, personId } = given;
  const { person, wrong } = await run(ctx, null, async ({ db, now_ms, tell }) => {
    const device = await deviceThere({ db }, deviceId);
    refuseLocked(device);
    if (device.wait_until_ms > now_ms) {
      const wait_s = Math.ceil((device.wait_until_ms - now_ms) / 1000);
      throw new Refusal("secret", `Too many wrong ones. Wait ${wait_s} s, then try again.`, 429);
    }
    const wrong = device.wrong + 1;
    await updateDevice(db, deviceId, {
      wrong,
      wait_until_ms: now_ms + waitAfter(wrong),
      locked_at_ms: wrong >= WRONG_LOCKS ? now_ms : null,
    });
    if (wrong >= WRONG_LOCKS) tell({ topic: "people", id: deviceId });
    return { person: await personThere({ db }, personId), wrong };
  });
  if (!(await knowsSecret(person, given.secret))) throw new Refusal("secret", wrongWords(person, wrong), 403);
  await run(ctx, null, async (running) => {
    await updateDevice(running.db, deviceId, NO_WRONG);
    await standThere(running, given);
    await keepPinGiven(running.db, deviceId, personId, running.now_ms);
  });
}

const wrongWords = ({ role }: Person, wrong: number): string => {
  const what = role === "owner" ? "This is not the passcode." : "This is not the PIN.";
  if (wrong >= WRONG_LOCKS) return `${what} This device is locked now. The owner opens it again under People and devices.`;
  const wait_s = waitAfter(wrong) / 1000;
  return wait_s > 0 ? `${what} Wait ${wait_s} s before the next.` : what;
};

/**
 * Hands a device over without a PIN: to somebody who may do no more than whoever stands there, and whose PIN was given here this shift.
 * @returns whether that was enough; else the PIN is asked
 */
export function handOverTo(ctx: ServerContext, given: { deviceId: string; personId: string; address: string }): Promise<boolean> {
  return run(ctx, null, async (running) => {
    const { db, now_ms } = running;
    const device = await deviceThere(running, given.deviceId);
    refuseLocked(device);
    const person = await personThere(running, given.personId);
    const pin_at_ms = await pinGivenAt(db, device.id, person.id);
    const fresh = pin_at_ms !== null && now_ms - pin_at_ms < PIN_HOLDS_MS;
    const { actor } = ctx;
    if (!fresh || actor.personId === null || !isNoMore(person.role, actor.role)) return false;
    await standThere(running, given);
    return true;
  });
}

/** Nobody stands at the device any more; their PIN is asked again. */
export const leaveDevice = (ctx: ServerContext, deviceId: string): Promise<void> =>
  run(ctx, null, async ({ db, tell }) => {
    await updateDevice(db, deviceId, { person_id: null });
    await forgetPins(db, { deviceId });
    tell({ topic: "people", id: deviceId });
  });

/** The device may not come in any more. */
export async function endDevice(ctx: ServerContext, deviceId: string): Promise<void> {
  requireRight(ctx, "people");
  await run(ctx, null, async (running) => {
    await deviceThere(running, deviceId);
    await updateDevice(running.db, deviceId, { ended_at_ms: running.now_ms, person_id: null });
    await forgetPins(running.db, { deviceId });
    running.tell({ topic: "people", id: deviceId });
  });
}

/** A device that wrong PINs have locked may try again. */
export async function unlockDevice(ctx: ServerContext, deviceId: string): Promise<void> {
  requireRight(ctx, "people");
  await run(ctx, null, async (running) => {
    await deviceThere(running, deviceId);
    await updateDevice(running.db, deviceId, NO_WRONG);
    running.tell({ topic: "people", id: deviceId });
  });
}

async function standThere({ db, tell }: Running, { deviceId, personId, address }: { deviceId: string; personId: string; address: string }) {
  await updateDevice(db, deviceId, { person_id: personId, address });
  tell({ topic: "people", id: deviceId });
}

function refuseLocked(device: DeviceRow): void {
  if (device.locked_at_ms !== null)
    throw new Refusal("secret", "Too many wrong PINs: this device is locked. The owner opens it again under People and devices.", 403);
}

async function deviceThere({ db }: Pick<Running, "db">, id: string): Promise<DeviceRow> {
  const there = await getDevice(db, id);
  if (!there) throw new Refusal(null, "This device is no longer paired", 404);
  return there;
}
