import { type LineKind, type LineValue, readLine } from "#core/models/devices/line";
import type { LineProfile } from "#core/models/devices/line-profile";
import { followPort, usbOf } from "./follow-port";

/** How a profile's instrument stands on this machine. */
export interface SerialState {
  /** `reading`: its port is open; `away`: not plugged in here, or not allowed yet; `fault`: the port cannot be opened. */
  is: "reading" | "away" | "fault";
  line: string | null;
  fault: string | null;
}
const AWAY: SerialState = { is: "away", line: null, fault: null };

/** As often at most what an instrument reads goes on its way: a scale prints ten times a second, a probe every second. */
const EVERY_MS: Record<LineKind, number> = { gauge: 0, scale: 200, climate: 10_000 };
const ADDRESS: Record<LineKind, string> = { gauge: "/do/devices/gauge", scale: "/do/devices/scale", climate: "/do/devices/climate" };

type Read = Partial<Record<LineValue, number>>;
const BODY: Record<LineKind, (read: Read, name: string) => object> = {
  gauge: ({ film }, device) => ({ total_m: film, device }),
  scale: ({ mass }) => ({ mass_kg: mass }),
  climate: ({ air, part, humidity }) => ({ air_K: air, part_K: part ?? null, material_K: null, relativeHumidity: humidity }),
};

/**
 * Reads the instruments on this machine's serial ports and sends what they read where a bridge would: every page of the shop takes it from there. Ports
 * that were allowed once are opened by themselves, also when they are plugged in again.
 */
export function createSerialBridge(serial: Serial) {
  let profiles: readonly LineProfile[] = [];
  const states = new Map<string, SerialState>();
  const open = new Map<SerialPort, { name: string; stop: AbortController }>();
  /** Ports that somebody else of this page holds, while its lines are looked at. */
  const lent = new Set<SerialPort>();
  const listeners = new Set<() => void>();
  let shown: ReadonlyMap<string, SerialState> = new Map();
  const change = (name: string, next: Partial<SerialState>) => {
    states.set(name, { ...(states.get(name) ?? AWAY), ...next });
    shown = new Map(states);
    listeners.forEach((l) => l());
  };
  const sameUsb = (a: LineProfile["usb"], b: LineProfile["usb"]) => a?.vendorId === b?.vendorId && a?.productId === b?.productId;

  async function look(): Promise<void> {
    for (const port of await serial.getPorts()) {
      if (open.has(port) || lent.has(port)) continue;
      const busy = new Set([...open.values()].map((o) => o.name));
      const profile = profiles.find((p) => !busy.has(p.name) && sameUsb(p.usb, usbOf(port)));
      if (profile) void follow(port, profile);
    }
  }

  async function follow(port: SerialPort, profile: LineProfile): Promise<void> {
    const { name, kind } = profile;
    const stop = new AbortController();
    open.set(port, { name, stop });
    change(name, { is: "reading", fault: null });
    let sent_ms = -Infinity;
    const take = (line: string) => {
      change(name, { line });
      const read = readLine(profile, line);
      const now_ms = performance.now();
      if (!read || now_ms - sent_ms < EVERY_MS[kind]) return;
      sent_ms = now_ms;
      void send(ADDRESS[kind], BODY[kind](read, name)).then((fault) => {
        if (states.get(name)?.is === "reading") change(name, { fault }); // it may be pulled out by now
      });
    };
    try {
      await followPort(port, profile.baudRate, take, stop.signal);
      change(name, { is: "away" });
    } catch (error) {
      change(name, { is: stop.signal.aborted ? "away" : "fault", fault: error instanceof Error ? error.message : String(error) });
    } finally {
      open.delete(port);
    }
  }

  const lookNow = () => void look().catch(() => {});
  return {
    get: (): ReadonlyMap<string, SerialState> => shown,
    subscribe: (listener: () => void) => {
      listeners.add(listener);
      return () => void listeners.delete(listener);
    },
    /** What is read from now on; ports whose profile has gone or changed are let go. */
    follow(now: readonly LineProfile[]): void {
      const known = new Set(profiles.map((p) => JSON.stringify(p)));
      const kept = new Set(now.filter((p) => known.has(JSON.stringify(p))).map((p) => p.name));
      profiles = now;
      for (const { name, stop } of open.values()) if (!kept.has(name)) stop.abort();
      lookNow();
      setTimeout(lookNow, 500); // what was let go just now is closed by then
    },
    /** A port is looked at by hand: it is nobody's until it is given back. */
    lend(port: SerialPort): () => void {
      lent.add(port);
      open.get(port)?.stop.abort();
      return () => {
        lent.delete(port);
        setTimeout(lookNow, 500);
      };
    },
    start(): () => void {
      serial.addEventListener("connect", lookNow);
      return () => {
        serial.removeEventListener("connect", lookNow);
        for (const { stop } of open.values()) stop.abort();
      };
    },
  };
}
export type SerialBridge = ReturnType<typeof createSerialBridge>;

/** @returns what the server said against it; null: it was taken */
async function send(address: string, body: object): Promise<string | null> {
  try {
    const answer = await fetch(address, {
      method: "POST",
      headers: { "Content-Type": "application/x-ndjson" },
      body: JSON.stringify(body),
    });
    return answer.ok ? null : (await answer.text()).slice(0, 200);
  } catch {
    return "The server does not answer";
  }
}
