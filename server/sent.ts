import { AsyncLocalStorage } from "node:async_hooks";
import { createHash } from "node:crypto";
import type { ServerContext } from "./context";
import { run } from "./commands/run";
import { wasSent } from "./repos/sent-form-repo";
import { AGE_HEADER, KEY_HEADER, PERSON_HEADER } from "./sent-headers";

/** What a device says of something it sends: its key, made once before it is first sent, and when it happened by the shop's clock. */
export interface Sent {
  key: string;
  at_ms: number;
  /** Who entered it, as the device says; null: whoever stands there. */
  personId: string | null;
}
/** A key of any other form is none; an age beyond a month is not believed. */
const KEY = /^[\w-]{10,80}$/;
const OLDEST_S = 31 * 24 * 3600;
const MS = 1000;

/** @param now_ms the shop's time */
export function sentOf(method: string, headers: Record<string, string | string[] | undefined>, now_ms: number): Sent | null {
  const key = headers[KEY_HEADER];
  if (method !== "POST" || typeof key !== "string" || !KEY.test(key)) return null;
  const age_s = Number(headers[AGE_HEADER] ?? 0);
  const person = headers[PERSON_HEADER];
  return {
    key,
    at_ms: now_ms - (age_s >= 0 && age_s <= OLDEST_S ? Math.round(age_s * MS) : 0),
    personId: typeof person === "string" && KEY.test(person) ? person : null,
  };
}

interface Sending extends Sent {
  runs: number;
  /** Within a command or between two of them: a stretch of its own for names, so that a command that is not carried out again takes none from the next. */
  stretch: number;
  /** Names made in this stretch. */
  ids: number;
}

/** What is sent under a key names what it makes by that key: carried out on the device and on the server it makes the same. */
const sending = new AsyncLocalStorage<Sending | null>();
export const asSent = <T>(sent: Sent | null, work: () => T): T => sending.run(sent && { ...sent, runs: 0, stretch: 0, ids: 0 }, work);

/** An identifier of a key, the n-th of a stretch: 122 bits of its SHA-256, written as a UUID (RFC 9562, version 8). */
export function idOfKey(key: string, stretch: number, n: number): string {
  const hex = createHash("sha256").update(`${key} ${stretch} ${n}`).digest("hex");
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-8${hex.slice(13, 16)}-a${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
}

/** Whether what was sent under a key has been carried out, all of it: its answer was lost on the way, and it is not asked again whether it may. */
export const wasCarriedOut = ({ db }: Pick<ServerContext, "db">, { key }: Sent): Promise<boolean> => wasSent(db, wholeKey(key));
const runKey = (key: string, n: number) => `${key} ${n}`;
const wholeKey = (key: string) => `${key} whole`;

/**
 * Carries a request out under its key, and notes when all of it has been. A server that dies between two of its commands has noted the first alone:
 * sent again, that one answers as it did, and the rest is carried out.
 * @param work whether it was taken: what was refused, or stored nothing, is asked anew each time
 */
export const carriedOutWhole = (ctx: ServerContext, sent: Sent, work: () => Promise<boolean>): Promise<void> =>
  asSent(sent, async () => {
    const taken = await work();
    const now = sending.getStore();
    if (taken && now && now.runs > 0) await run(ctx, { key: wholeKey(sent.key), what: "sent", content: null }, () => Promise.resolve(null));
  });

/** The context of a request that was sent under a key: its time, its identifiers, and each command of it once. */
export function ofSending(ctx: ServerContext): ServerContext {
  const now = sending.getStore();
  if (!now) return ctx;
  const onward = () => {
    now.stretch++;
    now.ids = 0;
  };
  return {
    ...ctx,
    now_ms: () => now.at_ms,
    newId: () => idOfKey(now.key, now.stretch, now.ids++),
    nextRun: () => {
      onward();
      return { key: runKey(now.key, now.runs++), over: onward };
    },
  };
}
