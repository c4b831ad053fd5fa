import { LRUCache } from "lru-cache";
import type { ServerContext } from "../context";
import { run } from "../commands/run";
import { PIN_HOLDS_MS } from "../commands/devices";
import { type DeviceRow, deviceOfToken, pinGivenAt, updateDevice } from "../repos/device-repo";
import { type Person, getOwner, getPerson } from "../repos/person-repo";
import { digestOfToken } from "./secrets";

/** Who asks: on which device, and who stands there. */
export interface Asking {
  device: DeviceRow | null;
  person: Person | null;
  /** The PIN or passcode was given a short while ago: for what only the owner does. */
  sure: boolean;
}
export const NOT_KNOWN: Asking = { device: null, person: null, sure: false };

/** For what only the owner does the passcode was given no longer ago. */
export const SURE_MS = 15 * 60_000;
/** A device's last sight is written down no more often. */
const SEEN_EVERY_MS = 60_000;

/** What the file says of a token; the time is not in it. */
interface Standing {
  device: DeviceRow;
  person: Person | null;
  pin_at_ms: number | null;
}
const REMEMBERED = 500;
/**
 * Every request asks: kept by the token's digest until anything about people or devices is told. What was read before that is of no memory any more,
 * and keeping it there does nothing: each telling begins a new one.
 */
const remembered = new WeakMap<object, { now: LRUCache<string, Standing> }>();
const newMemory = () => new LRUCache<string, Standing>({ max: REMEMBERED });
function memoryOf({ db, bus }: ServerContext): LRUCache<string, Standing> {
  const known = remembered.get(db);
  if (known) return known.now;
  const made = { now: newMemory() };
  bus.subscribe(({ topic }) => {
    if (topic === "people") made.now = newMemory();
  });
  remembered.set(db, made);
  return made.now;
}

async function standingOf(ctx: ServerContext, digest: string): Promise<Standing | null> {
  const memory = memoryOf(ctx);
  const standing = memory.get(digest) ?? (await read(ctx, digest));
  if (standing) memory.set(digest, standing);
  return standing;
}

/**
 * Who is behind a token. A device that comes from another address than where somebody signed in on it is nobody's until the PIN is given again: what
 * was copied off it is worth nothing elsewhere.
 */
export async function whoAsks(ctx: ServerContext, token: string | null, address: string): Promise<Asking> {
  if (token === null || token.length > 100) return NOT_KNOWN;
  const standing = await standingOf(ctx, digestOfToken(token));
  if (!standing) return NOT_KNOWN;
  const now_ms = ctx.now_ms();
  if (now_ms - standing.device.seen_ms > SEEN_EVERY_MS) {
    standing.device = { ...standing.device, seen_ms: now_ms };
    await run(ctx, null, ({ db }) => updateDevice(db, standing.device.id, { seen_ms: now_ms }));
  }
  return askingOf(standing, address, now_ms);
}

/** Whether they still stand there as they did when something long began: a stream ends with their being let in. */
export async function stillThere(ctx: ServerContext, was: Asking): Promise<boolean> {
  if (!was.device) return false;
  const { token_hash, address } = was.device;
  const standing = await standingOf(ctx, token_hash);
  return standing !== null && askingOf(standing, address, ctx.now_ms()).person?.id === was.person?.id;
}

async function read({ db }: ServerContext, digest: string): Promise<Standing | null> {
  const device = await deviceOfToken(db, digest);
  if (!device) return null;
  const { person_id } = device;
  if (person_id === null) return { device, person: null, pin_at_ms: null };
  const [person, pin_at_ms] = await Promise.all([getPerson(db, person_id), pinGivenAt(db, device.id, person_id)]);
  return { device, person, pin_at_ms };
}

function askingOf({ device, person, pin_at_ms }: Standing, address: string, now_ms: number): Asking {
  if (device.kind === "bridge" || device.locked_at_ms !== null || device.address !== address) return { ...NOT_KNOWN, device };
  if (!person || pin_at_ms === null || now_ms - pin_at_ms >= PIN_HOLDS_MS) return { ...NOT_KNOWN, device };
  return { device, person, sure: now_ms - pin_at_ms < SURE_MS };
}

/** Whether the shop has an owner: before, there is nobody who could let anybody in. */
export const hasOwner = async (ctx: Pick<ServerContext, "db">): Promise<boolean> => (await getOwner(ctx.db)) !== null;
