import { randomUUID } from "node:crypto";
import type { Point } from "#core/panel/geometry";
import { type Db, databaseFile, migrate, openDatabase } from "./db/open";
import { type DeviceHub, createDeviceHub } from "./devices/device-hub";
import { type EventBus, createEventBus } from "./events/bus";

/** What every command and repository call works with. Time and ids come from here, so tests and the demo choose their own. */
export interface ServerContext {
  db: Db;
  bus: EventBus;
  now_ms(): number;
  newId(): string;
  /** Suggested spots by panel: an outline never changes, and spreading spots over it is the dearest part of a page. */
  spotMemo: Map<string, Point[]>;
  devices: DeviceHub;
}

export function createContext(db: Db, overrides: Partial<Omit<ServerContext, "db">> = {}): ServerContext {
  return {
    db,
    bus: createEventBus(),
    now_ms: () => Date.now(),
    newId: () => randomUUID(),
    spotMemo: new Map(),
    devices: createDeviceHub(),
    ...overrides,
  };
}

declare global {
  // One context a process; dev reloads modules, the open file stays.
  var yakamozContext: Promise<ServerContext> | undefined;
}

/** The running server's context: opens the file and applies migrations on first use. */
export function serverContext(): Promise<ServerContext> {
  return (globalThis.yakamozContext ??= (async () => {
    const db = openDatabase(databaseFile());
    await migrate(db);
    return createContext(db);
  })());
}
