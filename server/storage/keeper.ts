import { existsSync, statSync } from "node:fs";
import { statfs } from "node:fs/promises";
import { join } from "node:path";
import { databaseFile } from "../db/open";
import { storageFaultKind } from "../db/storage-fault";
import { BACKUPS, databaseParts } from "./backup";
import { EVERY_MS, OLD_MS, superseded } from "./backup-plan";
import { type KeptCopy, isThere, keptCopies, letGo, nameByHand, nameByPlan } from "./kept-backups";

/** A look at the clock so often. */
export const LOOK_MS = 60_000;
/** After a backup that failed the next is tried no sooner. */
const AGAIN_MS = 10 * 60_000;
/** Below so much room, or so many times the data file, a disk counts as nearly full: a backup needs as much as the file again. */
const LEAST_FREE_BYTES = 300e6;
const LEAST_FREE_FILES = 4;

/** How the shop's data are kept. */
export interface Keeping {
  newest: { at_ms: number; bytes: number } | null;
  /** Why the last backup by the plan was not made; null where it was. */
  failed: { at_ms: number; words: string } | null;
  /** The second place, and why nothing lies there; null where none was chosen. */
  second: { folder: string; failed: string | null } | null;
  /** Something was entered since the newest backup, and that is older than a day. */
  isOld: boolean;
  disk: { free_bytes: number; isNearlyFull: boolean } | null;
}

export interface KeeperParts {
  folder: string;
  now_ms: () => number;
  /** The second place that the shop has chosen. */
  secondPlace: () => Promise<string | null>;
  /** Writes a checked copy; never over another. */
  backup: (from: { source: string; target: string }) => Promise<unknown>;
  /** When the data file was last written to. */
  changedAt_ms?: () => number;
  freeBytes?: () => Promise<number>;
}

/** Makes backups by themselves, lets the old ones go by the plan, and knows how things stand. */
export function createKeeper({
  folder,
  now_ms,
  secondPlace,
  backup,
  changedAt_ms = () => lastWrite(folder),
  freeBytes = () => freeOn(folder),
}: KeeperParts) {
  const file = databaseFile(folder);
  let failed: Keeping["failed"] = null;
  let second: Keeping["second"] = null;
  let disk: Keeping["disk"] = null;
  let newest: KeptCopy | null = null;
  let working: Promise<void> = Promise.resolve();

  const own = (copies: readonly KeptCopy[]) => copies.filter((c) => c.place === "here");
  const isChanged = () => newest === null || changedAt_ms() > newest.at_ms + 1000; // stamps are to the second
  const see = () => (newest = own(keptCopies(folder, null))[0] ?? null);

  async function make(nameAt: (at_ms: number) => string): Promise<void> {
    const at_ms = now_ms();
    const name = nameAt(at_ms);
    try {
      await seeDisk();
      if (disk!.isNearlyFull) throw new Error("the disk is nearly full");
      const target = join(folder, BACKUPS, name);
      if (!existsSync(target)) await backup({ source: file, target });
      failed = null;
      await carryOver(target, name);
      for (const place of ["here", "second"] as const) {
        const there = keptCopies(folder, second?.folder ?? null).filter((c) => c.place === place && c.byPlan);
        superseded(there, at_ms).forEach(letGo);
      }
    } catch (error) {
      failed = { at_ms, words: inWords(error) };
    }
    see();
  }

  /** The same copy in the second place. What fails there does not undo the first. */
  async function carryOver(source: string, name: string): Promise<void> {
    const chosen = await seeSecond();
    if (chosen === null) return;
    try {
      const target = join(chosen, name);
      if (!existsSync(target)) await backup({ source, target });
      second = { folder: chosen, failed: null };
    } catch (error) {
      second = { folder: chosen, failed: inWords(error) };
    }
  }

  /** What was said of it last stands until it is tried again. @returns the second place where one was chosen and is there */
  async function seeSecond(): Promise<string | null> {
    const chosen = await secondPlace();
    if (chosen === null) second = null;
    else if (!isThere(chosen)) second = { folder: chosen, failed: "the folder is not there, or is not the one that was chosen" };
    else {
      if (second?.folder !== chosen) second = { folder: chosen, failed: null };
      return chosen;
    }
    return null;
  }

  async function seeDisk(): Promise<void> {
    const free_bytes = await freeBytes();
    const least = Math.max(LEAST_FREE_BYTES, LEAST_FREE_FILES * (statSync(file, { throwIfNoEntry: false })?.size ?? 0));
    disk = { free_bytes, isNearlyFull: free_bytes < least };
  }

  async function seeAll(): Promise<void> {
    see();
    await seeSecond();
    await seeDisk();
  }

  async function look(): Promise<void> {
    await seeAll();
    const isTried = failed !== null && now_ms() - failed.at_ms < AGAIN_MS;
    if (!isTried && isChanged() && (newest === null || now_ms() - newest.at_ms >= EVERY_MS)) await make(nameByPlan);
  }
  /** One after the other: two copies of one second would be one name. */
  const inTurn = (work: () => Promise<void>): Promise<void> => (working = working.then(work, work));

  return {
    /** Looks at the clock, the disk and the second place; makes a backup where one is due. */
    look: () => inTurn(look),
    /** What is there before the first page is shown: the disk, the copies and the second place. Makes nothing. */
    first: () => inTurn(seeAll),
    /** Makes one now, that the plan does not let go. @throws Error in words where it failed */
    async now(): Promise<void> {
      await inTurn(() => make(nameByHand));
      if (failed) throw new Error(failed.words);
    },
    keeping(): Keeping {
      const isOld = newest === null ? false : now_ms() - newest.at_ms > OLD_MS && isChanged();
      return { newest: newest && { at_ms: newest.at_ms, bytes: newest.bytes }, failed, second, isOld, disk };
    },
  };
}
export type Keeper = ReturnType<typeof createKeeper>;

/** What is wrong with how the shop is kept; null where nothing is. */
export function keepingFault(keeping: Keeping): string | null {
  if (keeping.failed) return `The last backup was not made: ${keeping.failed.words}.`;
  if (keeping.second?.failed) return `Nothing lies in the second place: ${keeping.second.failed}.`;
  if (keeping.isOld) return "What was entered since the last backup is older than a day.";
  return null;
}

function lastWrite(folder: string): number {
  return Math.max(...databaseParts(databaseFile(folder)).map((part) => statSync(part, { throwIfNoEntry: false })?.mtimeMs ?? 0));
}

async function freeOn(folder: string): Promise<number> {
  const { bavail, bsize } = await statfs(folder);
  return bavail * bsize;
}

function inWords(error: unknown): string {
  switch (storageFaultKind(error)) {
    case "full":
      return "the disk is full";
    case "readOnly":
      return "the folder cannot be written to";
    default:
      return error instanceof Error ? error.message : String(error);
  }
}
