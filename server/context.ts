import { randomUUID } from "node:crypto";
import { LRUCache } from "lru-cache";
import type { Point } from "#core/kernel/geometry/geometry";
import type { FilmMoment } from "#core/judge/film-history";
import type { PanelState } from "#core/judge/account";
import { AT_THE_MACHINE, type Actor } from "./access/actor";
import type { Db } from "./db/open";
import { type DeviceHub, createDeviceHub } from "./devices/device-hub";
import { type SharedReads, createSharedReads } from "./views/shared-reads";
import { type RunInThread, runHere } from "./thread";
import { type EventBus, createEventBus } from "./events/bus";

/** What every command and repository call works with. Time and ids come from here, so tests and the demo choose their own. */
export interface ServerContext {
  db: Db;
  /** In whose name it works. */
  actor: Actor;
  bus: EventBus;
  now_ms(): number;
  newId(): string;
  /** Of a request that was sent under a key: what its next command is kept by, so that it is carried out once, and to be told when it is over; null where there is no key. */
  nextRun(): { key: string; over(): void } | null;
  /** Entries up to this place are with the shop; on a device that goes on without it, what comes after is not yet. */
  withShopUpTo_seq: number;
  /** Suggested spots by panel and count: an outline never changes, and spreading spots over it is the dearest part of a page. */
  spotMemo: LRUCache<string, Point[]>;
  /** Sags of logged panels by panel, newest entry and factor. */
  sagMemo: LRUCache<string, number>;
  /** Each panel's account, and what it was worked out from: while all of that is the same, so is the account. */
  accountMemo: LRUCache<string, { of: readonly unknown[]; state: PanelState }>;
  /** Film of panels through time, by panel, product and newest entry. */
  historyMemo: LRUCache<string, Promise<FilmMoment[]>>;
  /** What several pages read of the same state: forgotten with every write. */
  reads: SharedReads;
  devices: DeviceHub;
  /** Pictures of the stand-in camera by panel and kind. */
  pictureMemo: LRUCache<string, Promise<Buffer>>;
  /** Whether the data folder is still this process's own: asked before every write. */
  stillOurs: () => boolean;
  /** Work that takes long: the running server has a thread for it. */
  inThread: RunInThread;
  /** Files that are taken in: read beside that work, which does not wait for them. */
  inFileThread: RunInThread;
}

const REMEMBERED = { panels: 2000, sags: 4000, accounts: 240, histories: 40, pictures: 40 } as const;

export function createContext(db: Db, overrides: Partial<Omit<ServerContext, "db">> = {}): ServerContext {
  return {
    db,
    actor: AT_THE_MACHINE,
    bus: createEventBus(),
    now_ms: () => Date.now(),
    newId: () => randomUUID(),
    nextRun: () => null,
    withShopUpTo_seq: Infinity,
    spotMemo: new LRUCache({ max: REMEMBERED.panels }),
    sagMemo: new LRUCache({ max: REMEMBERED.sags }),
    accountMemo: new LRUCache({ max: REMEMBERED.accounts }),
    historyMemo: new LRUCache({ max: REMEMBERED.histories }),
    reads: createSharedReads(),
    devices: createDeviceHub(),
    pictureMemo: new LRUCache({ max: REMEMBERED.pictures }),
    stillOurs: () => true,
    inThread: runHere,
    inFileThread: runHere,
    ...overrides,
  };
}
