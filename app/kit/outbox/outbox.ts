import { get, update } from "idb-keyval";

/** A reading on its way to the server, kept in the browser's own store until the server has answered for it. */
export interface Waiting {
  /** Made once: however often it is sent, it is stored once. */
  key: string;
  panelId: string;
  phase: string;
  spot: string;
  value: string;
  /** What the server is sent. */
  fields: Record<string, string>;
  /** When it was typed, by this browser's own clock: how long ago that is goes with it, whenever it is sent. Older ones have none. */
  typed_ms?: number;
}
/** A reading the server has answered for and did not store. */
export interface Refused extends Pick<Waiting, "key" | "panelId" | "phase" | "spot" | "value"> {
  message: string;
}
export interface OutboxState {
  waiting: readonly Waiting[];
  refused: readonly Refused[];
  /** The last try got no answer: it is sent again by itself. */
  held: string | null;
}

const STORE_KEY = "readings-waiting";
const RESEND_MS = 4000;
const EMPTY: OutboxState = { waiting: [], refused: [], held: null };

export interface Outbox {
  get(): OutboxState;
  subscribe(listener: () => void): () => void;
  add(reading: Waiting): void;
  /** A refused reading that the painter has seen. */
  drop(key: string): void;
  /** Sends what an earlier page left behind. */
  resume(): Promise<void>;
  stop(): void;
}

const MS = 1000;
/** Seconds since it was typed: a difference of one clock, right whatever that clock shows. */
const ageOf = ({ typed_ms }: Waiting): number => (typed_ms === undefined ? 0 : Math.max(0, (Date.now() - typed_ms) / MS));

type Answer = { kind: "stored" } | { kind: "refused"; message: string } | { kind: "none"; message: string };

/** What an answer says of a reading: only the server's own yes or no ends its wait. */
async function post(reading: Waiting): Promise<Answer> {
  let answer: Response;
  try {
    answer = await fetch(`/do/panels/${encodeURIComponent(reading.panelId)}/readings`, {
      method: "POST",
      body: new URLSearchParams({ ...reading.fields, clientKey: reading.key, age_s: String(ageOf(reading)) }),
    });
  } catch {
    return { kind: "none", message: "The server does not answer" };
  }
  if (answer.status >= 500 || [401, 408, 429].includes(answer.status)) {
    const said = await words(answer);
    return { kind: "none", message: said ?? "The server could not store it yet" };
  }
  return answer.ok ? { kind: "stored" } : { kind: "refused", message: (await words(answer)) ?? "The server did not take it" };
}

async function words(answer: Response): Promise<string | null> {
  const text = await answer.text().catch(() => "");
  try {
    const { message } = JSON.parse(text) as { message?: unknown };
    return typeof message === "string" && message !== "" ? message : null;
  } catch {
    return text !== "" && text.length < 300 ? text : null;
  }
}

/**
 * Readings on their way, one after another, for all pages of a window. They outlive the page, the window and a server that is away: kept in
 * IndexedDB, sent again until there is an answer. Where the browser gives no store (a private window) they live as long as the window.
 */
export function createOutbox(): Outbox {
  let state = EMPTY;
  let sending = false;
  let stopped = false;
  let timer: ReturnType<typeof setTimeout> | undefined;
  const listeners = new Set<() => void>();
  const change = (next: Partial<OutboxState>) => {
    state = { ...state, ...next };
    listeners.forEach((l) => l());
  };
  const keep = (reading: Waiting) =>
    update<Waiting[]>(STORE_KEY, (known = []) => [...known.filter((k) => k.key !== reading.key), reading]).catch(() => {});
  const forget = (key: string) => update<Waiting[]>(STORE_KEY, (known = []) => known.filter((k) => k.key !== key)).catch(() => {});
  const again = () => {
    clearTimeout(timer);
    if (!stopped) timer = setTimeout(() => void work(), RESEND_MS);
  };

  async function work(): Promise<void> {
    if (sending || stopped) return;
    sending = true;
    try {
      for (let head = state.waiting[0]; head && !stopped; head = state.waiting[0]) {
        const { key, panelId, phase, spot, value } = head;
        const answer = await post(head);
        if (answer.kind === "none") {
          change({ held: answer.message });
          return again();
        }
        await forget(key);
        change({
          held: null,
          waiting: state.waiting.filter((w) => w.key !== key),
          ...(answer.kind === "refused"
            ? { refused: [...state.refused, { key, panelId, phase, spot, value, message: answer.message }] }
            : {}),
        });
      }
    } finally {
      sending = false;
    }
  }

  return {
    get: () => state,
    subscribe(listener) {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    add(given) {
      const reading = { typed_ms: Date.now(), ...given };
      change({ waiting: [...state.waiting, reading] });
      void keep(reading).then(work);
    },
    drop: (key) => change({ refused: state.refused.filter((r) => r.key !== key) }),
    async resume() {
      stopped = false;
      const left = await get<Waiting[]>(STORE_KEY).catch(() => undefined);
      if (left?.length) change({ waiting: [...left.filter((l) => !state.waiting.some((w) => w.key === l.key)), ...state.waiting] });
      return work();
    },
    stop() {
      stopped = true;
      clearTimeout(timer);
    },
  };
}
