import { nanoid } from "nanoid";
import { KEY_HEADER } from "#server/sent-headers";
import { createDeviceProgram } from "./ask-device";
import { type Clash, countKept, leaveOut, standingNow, waitAgain } from "./device-store";
import { followRows } from "./follow-rows";
import { sendWaiting } from "./send-waiting";

/** So long an answer is waited for before the device gives its own. */
const ANSWER_MS = { GET: 8000, POST: 12_000 } as const;
const RESEND_MS = 4000;
const FOLLOW_MS = { own: 250, others: 1500 } as const;

/** What is not the device's to answer: what only the shop's machine has, and who may come in. */
const SHOPS_OWN =
  /^\/(house|owner|pair|sign-in|trust|authority|healthz|assets)\b|^\/do\/(events|rows|usual|demo|help|shelf|jobs|devices|photos)\b/;

export interface AwayState {
  /** Since when this device answers in the shop's place, by its own clock; null: the shop answers. */
  away_ms: number | null;
  waiting: number;
  clashes: number;
}

interface Asked {
  url: URL;
  method: "GET" | "POST";
  headers: Headers;
  body: string | null;
}
/** What a request asks, as far as a device can answer it: typed forms and pages; null for files and what is the shop's own. */
function asked(input: RequestInfo | URL, init: RequestInit | undefined): Asked | null {
  if (input instanceof Request) return null;
  const url = new URL(input, location.href);
  const method = (init?.method ?? "GET").toUpperCase();
  if (url.origin !== location.origin || SHOPS_OWN.test(url.pathname)) return null;
  const headers = new Headers(init?.headers);
  if (method === "GET") return { url, method, headers, body: null };
  const body = init?.body;
  if (method !== "POST" || !(body instanceof URLSearchParams || typeof body === "string")) return null;
  if (!headers.has("Content-Type")) headers.set("Content-Type", "application/x-www-form-urlencoded;charset=UTF-8");
  const type = headers.get("Content-Type")!;
  const isForm = type.startsWith("application/x-www-form-urlencoded") || url.pathname.startsWith("/do/prefs");
  return isForm ? { url, method, headers, body: String(body) } : null;
}

/** This window's way to the shop, and to the device itself where the shop does not answer. */
export function createDevice(send: typeof fetch) {
  const program = createDeviceProgram();
  let state: AwayState = { away_ms: null, waiting: 0, clashes: 0 };
  const listeners = new Set<() => void>();
  const change = (next: Partial<AwayState>) => {
    state = { ...state, ...next };
    listeners.forEach((l) => l());
  };
  const channel = "BroadcastChannel" in globalThis ? new BroadcastChannel("yakamoz-device") : null;
  const count = async () => change(await countKept());
  const told = async () => {
    await count();
    channel?.postMessage("changed");
  };
  channel?.addEventListener("message", () => void count());

  async function fromDevice({ url, method, headers, body }: Asked, key: string, happened_ms: number): Promise<Response> {
    const standing = await standingNow();
    if (!standing) throw new Error("nothing is kept on this device");
    const answer = await program.ask(standing.program, {
      url: url.href,
      method,
      headers: [...headers],
      body,
      cookie: document.cookie,
      key,
      happened_ms,
      nonce: "",
    });
    if (state.away_ms === null) change({ away_ms: Date.now() });
    for (const cookie of answer.cookies) document.cookie = cookie;
    if (answer.kept) await told();
    const none = answer.status === 204 || answer.status === 304;
    return new Response(none ? null : answer.body, { status: answer.status, headers: answer.headers });
  }

  /** An invented shop is looked at: nothing is answered here for it, and nothing of the shop's is sent to it. */
  let isElsewhere = false;
  let isReady = false;
  const look = async () => void (isReady = (await standingNow()) !== undefined);
  let following: Promise<unknown> | null = null;
  let followTimer: ReturnType<typeof setTimeout> | undefined;
  let followAt = Infinity;
  /** Rows are followed a moment after something has changed; sooner where it was here. */
  function follow(by: keyof typeof FOLLOW_MS): void {
    const at = Date.now() + FOLLOW_MS[by];
    if (at >= followAt && followAt > Date.now()) return;
    clearTimeout(followTimer);
    followAt = at;
    followTimer = setTimeout(() => {
      followAt = Infinity;
      following = (following ?? Promise.resolve())
        .then(() => followRows(send))
        .then(look)
        .catch(() => {});
    }, FOLLOW_MS[by]);
  }

  let sending: Promise<boolean> | null = null;
  /** Sends what waits. @returns whether the shop has answered for all of it */
  const flush = (): Promise<boolean> =>
    isElsewhere
      ? Promise.resolve(false)
      : (sending ??= sendWaiting(send, () => void told())
          .then(async (all) => {
            await count();
            if (all) {
              change({ away_ms: null });
              await followRows(send).catch(() => {});
            }
            return all;
          })
          .finally(() => (sending = null)));
  let timer: ReturnType<typeof setInterval> | undefined;

  return {
    get: () => state,
    /** The way to the shop alone. */
    plain: send,
    subscribe: (listener: () => void) => {
      listeners.add(listener);
      return () => void listeners.delete(listener);
    },
    follow,
    flush,
    /** Takes up what an earlier page has left, and begins to follow. */
    start({ elsewhere }: { elsewhere: boolean }): void {
      isElsewhere = elsewhere;
      look().catch(() => {}); // a browser that keeps nothing
      follow("own");
      void count().then(() => state.waiting > 0 && flush());
      clearInterval(timer);
      timer = setInterval(() => state.waiting > 0 && void flush(), RESEND_MS);
    },
    /** A person has decided of what the shop did not take. */
    async sendAgain(clash: Clash): Promise<void> {
      await waitAgain(clash);
      await told();
      await flush();
    },
    async leaveOut(clash: Clash): Promise<void> {
      await leaveOut(clash);
      await told();
    },
    /** Whether this device could answer in the shop's place. */
    ready: () => isReady,
    stop(): void {
      clearInterval(timer);
      clearTimeout(followTimer);
      channel?.close();
    },
    /** As `fetch`, but what the shop does not answer is answered here. */
    async fetch(input: RequestInfo | URL, init?: RequestInit): Promise<Response> {
      const what = isElsewhere ? null : asked(input, init);
      if (!what) return send(input, init);
      const key = nanoid();
      const happened_ms = Date.now();
      // As long as something of this device is not with the shop, the shop's answer would lack it.
      if (state.waiting > 0)
        try {
          return await fromDevice(what, key, happened_ms);
        } catch {
          /* the shop is asked */
        }
      if (what.method === "POST") what.headers.set(KEY_HEADER, key);
      const patience = AbortSignal.timeout(ANSWER_MS[what.method]);
      const signal = init?.signal ? AbortSignal.any([init.signal, patience]) : patience;
      try {
        const answer = await send(input, { ...init, headers: what.headers, signal });
        const whole = new Response(answer.body === null ? null : await answer.arrayBuffer(), answer);
        if (state.away_ms !== null) change({ away_ms: null });
        if (what.method === "POST") follow("own");
        return whole;
      } catch (error) {
        if (init?.signal?.aborted) throw error;
        try {
          return await fromDevice(what, key, happened_ms);
        } catch {
          throw error instanceof TypeError ? error : new TypeError("no answer", { cause: error });
        }
      }
    },
  };
}
export type Device = ReturnType<typeof createDevice>;
