import { mkdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { hostname } from "node:os";
import { join } from "node:path";
import lockfile from "proper-lockfile";

const NAME = "in-use";
const OWNER = "in-use.json";
/** A lock that its owner has not renewed for so long is nobody's; it is renewed every third of that. */
const STALE_MS = 9000;

export class FolderInUse extends Error {}

interface Owner {
  pid: number;
  host: string;
  what: string;
}

/**
 * Takes a data folder for one process: two servers on one folder would each believe to know everything that happens in it.
 * A lock left behind by a process of this machine that is gone (killed, power cut) is taken over at once, any other when it is stale.
 * @throws FolderInUse in words, while somebody has it
 */
export async function lockFolder(folder: string, what: string): Promise<() => Promise<void>> {
  mkdirSync(folder, { recursive: true });
  const lockfilePath = join(folder, NAME);
  const owner = ownerOf(folder);
  if (owner && owner.host === hostname() && !isRunning(owner.pid)) rmSync(lockfilePath, { recursive: true, force: true });
  let release: () => Promise<void>;
  try {
    release = await lockfile.lock(folder, {
      lockfilePath,
      stale: STALE_MS,
      update: STALE_MS / 3,
      realpath: false,
      // Losing it needs a stop of many seconds (a sleeping machine); writes stay safe, each takes SQLite's own lock.
      onCompromised: () => {},
    });
  } catch (error) {
    if ((error as { code?: string }).code !== "ELOCKED") throw error;
    const who = ownerOf(folder);
    throw new FolderInUse(
      `The data folder ${folder} is in use${who ? ` by ${who.what} (process ${who.pid})` : ""}. Stop it first, or set YAKAMOZ_DATA to another folder.`,
      { cause: error },
    );
  }
  writeFileSync(join(folder, OWNER), JSON.stringify({ pid: process.pid, host: hostname(), what } satisfies Owner));
  return async () => {
    rmSync(join(folder, OWNER), { force: true });
    await release().catch(() => {}); // taken over meanwhile: nothing to give back
  };
}

function ownerOf(folder: string): Owner | null {
  try {
    return JSON.parse(readFileSync(join(folder, OWNER), "utf8")) as Owner;
  } catch {
    return null;
  }
}

function isRunning(pid: number): boolean {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return (error as { code?: string }).code === "EPERM";
  }
}
