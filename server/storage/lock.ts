import { randomUUID } from "node:crypto";
import { closeSync, mkdirSync, openSync, readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import { hostname } from "node:os";
import { join } from "node:path";
import lockfile from "proper-lockfile";
import { isRunning } from "./running-process";

const NAME = "in-use";
const OWNER = "in-use.json";
const TURN = "in-use.turn";
/** A lock that its owner has not renewed for so long is nobody's; it is renewed every third of that. */
const STALE_MS = 9000;

const LOOK_MS = 250;
/** A lock just taken may bear a time so far ahead: its maker tries out how finely the disk keeps times, and may be killed at that. */
const AHEAD_MS = 1005;

export class FolderInUse extends Error {}

const TRIPPED = new Set(["ELOCKED", "ENOENT", "EEXIST", "ENOTEMPTY"]);

interface Owner {
  pid: number;
  host: string;
  what: string;
  /** Made anew with every lock: a process that slept through its own end knows by it that the folder is another's. */
  token: string;
}

export interface FolderLock {
  /** Whether the folder is still this process's own; asked before every write. */
  stillOurs: () => boolean;
  /** Comes when the folder was lost to another process: this one has to stop. */
  lost: Promise<void>;
  release: () => Promise<void>;
}

/**
 * Takes a data folder for one process: two servers on one folder would each believe to know everything that happens in it.
 * A lock left behind by a process of this machine that is gone (killed, power cut) is taken over at once, any other when it is stale.
 * @param stale_ms after which a lock that is not renewed is nobody's, at least 2000
 * @throws FolderInUse in words, while somebody has it
 */
export async function lockFolder(folder: string, what: string, stale_ms = STALE_MS): Promise<FolderLock> {
  // A lock without a name is being taken just now, or its taker died before it could write one: which of the two, time tells.
  const until = Date.now() + stale_ms + AHEAD_MS;
  for (;;) {
    const began = Date.now();
    try {
      return await tryLock(folder, what, stale_ms);
    } catch (error) {
      if (!(error instanceof FolderInUse) || ownerOf(folder) !== null || began > until) throw error;
      await new Promise((done) => setTimeout(done, LOOK_MS));
    }
  }
}

async function tryLock(folder: string, what: string, stale_ms: number): Promise<FolderLock> {
  mkdirSync(folder, { recursive: true });
  const lockfilePath = join(folder, NAME);
  removeLockOfTheDead(folder, lockfilePath);
  let tellLost = () => {};
  const lost = new Promise<void>((done) => (tellLost = done));
  const release = await lockfile
    .lock(folder, {
      lockfilePath,
      stale: stale_ms,
      update: stale_ms / 3,
      realpath: false,
      // Losing it needs a stop of many seconds: a sleeping machine, a halted process.
      onCompromised: () => tellLost(),
    })
    .catch((error: unknown) => {
      // What several at once trip over (a lock that comes and goes between two looks): one of them has it, and it is not this one.
      if (!TRIPPED.has((error as { code?: string }).code ?? "")) throw error;
      const who = ownerOf(folder);
      throw new FolderInUse(
        `The data folder ${folder} is in use${who ? ` by ${who.what} (process ${who.pid})` : ""}. Stop it first, or set YAKAMOZ_DATA to another folder.`,
        { cause: error },
      );
    });
  const token = randomUUID();
  writeFileSync(join(folder, OWNER), JSON.stringify({ pid: process.pid, host: hostname(), what, token } satisfies Owner));
  const stillOurs = () => ownerOf(folder)?.token === token;
  return {
    stillOurs,
    lost,
    release: async () => {
      if (stillOurs()) rmSync(join(folder, OWNER), { force: true });
      await release().catch(() => {}); // taken over meanwhile: nothing to give back
    },
  };
}

/** A take-over is one process's at a time: removed by two, the lock of the first would go with that of the dead. */
function removeLockOfTheDead(folder: string, lockfilePath: string): void {
  const dead = () => {
    const owner = ownerOf(folder);
    return owner !== null && owner.host === hostname() && !isRunning(owner.pid);
  };
  if (!dead()) return;
  const turn = join(folder, TURN);
  try {
    if (Date.now() - statSync(turn).mtimeMs > STALE_MS) rmSync(turn, { force: true }); // its own process is gone too
  } catch {
    // nobody is at it
  }
  try {
    closeSync(openSync(turn, "wx"));
  } catch {
    return; // another process takes it over just now
  }
  try {
    if (!dead()) return;
    rmSync(lockfilePath, { recursive: true, force: true });
    rmSync(join(folder, OWNER), { force: true });
  } finally {
    rmSync(turn, { force: true });
  }
}

function ownerOf(folder: string): Owner | null {
  try {
    return JSON.parse(readFileSync(join(folder, OWNER), "utf8")) as Owner;
  } catch {
    return null;
  }
}
