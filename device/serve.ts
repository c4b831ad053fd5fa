import { RouterContextProvider, createRequestHandler } from "react-router";
import initSqlJs from "sql.js/dist/sql-wasm-browser.js";
import wasm from "sql.js/dist/sql-wasm-browser.wasm?url";
import * as build from "virtual:react-router/server-build";
import { type Actor, AT_THE_MACHINE, asActor } from "#server/access/actor";
import { type Known, NOT_ASKED } from "#server/access/guard";
import type { Role } from "#server/access/rights";
import { asSent } from "#server/sent";
import { requestContext } from "~/kit/http/request-context.server";
import { type Standing, type Waiting, allKept, headKept, putWaiting } from "~/kit/away/device-store";
import type { DeviceAnswer, DeviceAsk, DeviceFault } from "~/kit/away/device-talk";
import { useEngine } from "./shims/libsql";
import { takeRemembered } from "./globals";
import { standOn } from "./instead/running";
import { type Replica, openReplica } from "./replica";

const handler = createRequestHandler(build, "production");

/** The shop as this device knows it: what the shop last told, and on top of it what was entered here since, carried out anew in its order. */
interface Held {
  replica: Replica;
  standing: Standing;
  /** What of the outbox it has in it, by its place. */
  upTo: number;
  sent: string;
}
let held: Held | null = null;
let engine: Promise<void> | null = null;

const loadEngine = () => (engine ??= initSqlJs({ locateFile: () => wasm }).then(useEngine));

/** The rows as they are kept now, with all that waits for the shop. */
async function hold(): Promise<Held> {
  const head = await headKept();
  if (held && isOf(held, head.standing) && listOf(head.waiting).startsWith(held.sent)) return onTop(held, head.waiting);
  const { standing, rows, waiting } = await allKept();
  if (!standing) throw new Error("nothing of the shop is kept on this device yet");
  const before = held;
  held = null;
  await before?.replica.close();
  const made = { replica: await openReplica(rows, () => Date.now() + standing.offset_ms), standing, upTo: 0, sent: "" };
  standOn(made.replica.ctx);
  return (held = await onTop(made, waiting));
}
const isOf = ({ standing }: Held, now: Standing | undefined) => standing.epoch === now?.epoch && standing.seq === now.seq;
const listOf = (waiting: readonly Waiting[]) => waiting.map((w) => w.key).join();

/** What was entered since, also in another window, carried out on top. */
async function onTop(shop: Held, waiting: readonly Waiting[]): Promise<Held> {
  for (const item of waiting) if (item.n! > shop.upTo) await carryOut(shop, requestOf(item), item);
  return Object.assign(shop, { upTo: waiting.at(-1)?.n ?? shop.upTo, sent: listOf(waiting) });
}

const requestOf = ({ path, body }: Waiting): Request =>
  new Request(new URL(path, self.location.origin), {
    method: "POST",
    headers: { "Content-Type": "application/x-www-form-urlencoded;charset=UTF-8" },
    body,
  });

const knownOf = ({ who }: Standing): Known =>
  who
    ? {
        ...NOT_ASKED,
        asked: true,
        secure: who.secure,
        local: false,
        person: who.person as Known["person"],
        device: who.device as Known["device"],
      }
    : NOT_ASKED;
const actorOf = ({ who }: Standing): Actor =>
  who ? { role: who.person.role as Role, personId: who.person.id, name: who.person.name, deviceId: who.device.id } : AT_THE_MACHINE;

/** Answers a request as the shop's server would have at its time. */
function carryOut({ standing }: Held, request: Request, sent: Waiting | null, nonce = ""): Promise<Response> {
  const context = new RouterContextProvider();
  context.set(requestContext, { nonce, requestId: "", log: null, known: knownOf(standing) });
  const at = sent && { key: sent.key, at_ms: sent.happened_ms + standing.offset_ms, personId: null };
  return asActor(actorOf(standing), () => asSent(at, () => handler(request, context)));
}

async function answer({ url, method, headers, body, cookie, key, nonce, happened_ms }: DeviceAsk): Promise<Omit<DeviceAnswer, "id">> {
  await loadEngine();
  const shop = await hold();
  const request = new Request(url, { method, headers, body: method === "GET" ? null : body });
  // A browser lets no script write this header; the request is our own.
  const asked = new Headers(headers);
  if (cookie) asked.set("Cookie", cookie);
  Object.defineProperty(request, "headers", { value: asked });
  const { pathname, search } = new URL(url);
  const item: Waiting | null =
    method === "GET"
      ? null
      : {
          key,
          path: pathname + search,
          body: body ?? "",
          happened_ms,
          personId: shop.standing.who?.person.id ?? null,
          personName: shop.standing.who?.person.name ?? null,
          words: [],
        };
  const before = item && (await shop.replica.mark());
  takeRemembered();
  const response = await carryOut(shop, request, item, nonce);
  const cookies = [...new Set(takeRemembered())];
  const answered = { status: response.status, headers: [...response.headers], body: await response.arrayBuffer(), cookies };
  if (item && before && (await shop.replica.changedSince(before))) {
    if (response.status >= 500) {
      held = null; // half of it may stand: the rows are taken up anew, and nothing of it happened
      return { ...answered, kept: false };
    }
    item.words = await shop.replica.wordsSince(before);
    try {
      item.n = await putWaiting(item);
    } catch (error) {
      held = null; // what cannot be kept did not happen
      throw error;
    }
    Object.assign(shop, { upTo: item.n, sent: shop.sent === "" ? key : `${shop.sent},${key}` });
    return { ...answered, kept: true };
  }
  return { ...answered, kept: false };
}

/** Where the program runs: a worker of the window's. */
export interface DeviceScope {
  onmessage: ((event: MessageEvent<DeviceAsk>) => void) | null;
  postMessage(answer: DeviceAnswer | DeviceFault, transfer?: Transferable[]): void;
}

/** One request after the other: what goes with a request stands until it is answered. */
export function serveDevice(scope: DeviceScope): void {
  let last: Promise<unknown> = Promise.resolve();
  scope.onmessage = ({ data: ask }: MessageEvent<DeviceAsk>) => {
    last = last
      .then(() => answer(ask))
      .then(
        (a) => scope.postMessage({ id: ask.id, ...a }, [a.body]),
        (error: unknown) => scope.postMessage({ id: ask.id, fault: error instanceof Error ? error.message : String(error) }),
      );
  };
}
