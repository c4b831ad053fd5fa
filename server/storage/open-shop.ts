import { existsSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { sql } from "kysely";
import { type ServerContext, createContext } from "../context";
import { databaseFile, migrate, openDatabase } from "../db/open";
import { storageFaultKind } from "../db/storage-fault";
import { refreshSummaries } from "../repos/summary-repo";
import { BACKUPS, backupFile, backupTo, removePartials } from "./backup";
import { type FileState, checkFile } from "./file-check";
import { takeUpAccess } from "./keep-access";
import { keptCopies } from "./kept-backups";
import { FolderInUse, lockFolder } from "./lock";
import { restoreFrom, restoreMarker } from "./restore";

/** Exit codes, as sysexits.h names them. */
export const EXIT = { damaged: 65, io: 74, locked: 75, newer: 78, config: 78, readOnly: 73 } as const;

/** Why the program did not start, in a sentence, with the code to exit with. */
export class StartRefusal extends Error {
  constructor(
    message: string,
    readonly exitCode: number,
    cause?: unknown,
  ) {
    super(message, { cause });
  }
}

export interface OpenShop {
  ctx: ServerContext;
  /** Migrations applied just now, and the copy made before them. */
  migrated: string[];
  copy: string | null;
  /** Comes when another process has taken the folder: this one has to stop, and writes nothing any more. */
  lost: Promise<void>;
  close(): Promise<void>;
}

/**
 * Takes a data folder, checks its file, copies it before a migration, brings it up to date and opens it: everything that can go wrong goes
 * wrong here, before anybody is listened to.
 * @throws StartRefusal in words
 */
export async function openShop(
  folder: string,
  {
    now_ms = Date.now(),
    what = "Yakamoz",
    context = {},
  }: { now_ms?: number; what?: string; context?: Partial<Omit<ServerContext, "db">> } = {},
): Promise<OpenShop> {
  await finishRestore(folder, now_ms);
  const { release, lost, stillOurs } = await takeFolder(folder, what);
  try {
    requireWritable(folder);
    const file = databaseFile(folder);
    const state = existsSync(file) ? checkFile(file) : null;
    if (state && !state.ok) throw new StartRefusal(`${state.words} ${adviceOf(state, folder)}`.trim(), exitOf(state));
    const wants = state?.ok && !state.empty ? state.pending : [];
    const copy = wants.length > 0 ? backupFile(folder, now_ms, `before-${wants[0]!}`) : null;
    if (copy) backupTo(file, copy);
    const db = openDatabase(file);
    const migrated = await migrate(db);
    await refreshSummaries(db);
    const ctx = createContext(db, { stillOurs, ...context });
    await takeUpAccess(ctx, folder);
    removePartials(join(folder, BACKUPS));
    return {
      ctx,
      lost,
      migrated,
      copy,
      async close() {
        try {
          // Everything into the one file, and no log beside it: a copy of that file is then the whole shop.
          await sql`pragma wal_checkpoint(truncate)`.execute(db);
          await sql`pragma journal_mode = delete`.execute(db);
        } catch (error) {
          if (storageFaultKind(error instanceof Error ? error.cause : null) !== "busy") throw error; // a backup is reading: the log stays, sound
        } finally {
          await db.destroy();
          await release();
        }
      },
    };
  } catch (error) {
    await release();
    throw asRefusal(error, folder);
  }
}

/** A restore that was cut off is finished before anything is opened. */
async function finishRestore(folder: string, now_ms: number): Promise<void> {
  const marker = restoreMarker(folder);
  if (!existsSync(marker)) return;
  try {
    await restoreFrom(readFileSync(marker, "utf8"), folder, now_ms);
  } catch (error) {
    if (error instanceof FolderInUse) throw new StartRefusal(error.message, EXIT.locked, error);
    const said = error instanceof Error ? error.message : String(error);
    throw new StartRefusal(
      `A restore of ${databaseFile(folder)} was cut off, and could not be finished (${said}). Run npm run restore with a backup.`,
      EXIT.damaged,
      error,
    );
  }
}

async function takeFolder(folder: string, what: string) {
  try {
    return await lockFolder(folder, what);
  } catch (error) {
    if (error instanceof FolderInUse) throw new StartRefusal(error.message, EXIT.locked, error);
    throw asRefusal(error, folder);
  }
}

/** Writes and removes a small file: rights alone do not tell of a disk mounted read-only. */
function requireWritable(folder: string): void {
  const probe = join(folder, "write-probe");
  writeFileSync(probe, "x");
  rmSync(probe);
}

/** What to do about a damaged file: the newest copy that is sound, by name. */
function adviceOf(state: Exclude<FileState, { ok: true }>, folder: string): string {
  if (state.why !== "corrupt") return "";
  const sound = keptCopies(folder, null).find(({ file }) => {
    const copy = checkFile(file);
    return copy.ok && !copy.empty;
  });
  return sound
    ? `Nothing was changed. The last sound backup is of ${new Date(sound.at_ms).toLocaleString("en-GB", { dateStyle: "medium", timeStyle: "short" })}. To put it in its place: npm run restore ${sound.file}`
    : "Nothing was changed. Restore a backup: npm run restore <file> (README, Backup and restore).";
}
const exitOf = (state: Exclude<FileState, { ok: true }>): number => (state.why === "newer" ? EXIT.newer : EXIT.damaged);

function asRefusal(error: unknown, folder: string): StartRefusal {
  if (error instanceof StartRefusal) return error;
  const inner = error instanceof Error && error.cause !== undefined && storageFaultKind(error) === null ? error.cause : error;
  const said = error instanceof Error ? error.message : String(error);
  switch (storageFaultKind(inner)) {
    case "full":
      return new StartRefusal(`The disk of ${folder} is full: the program needs room to start. Nothing was changed.`, EXIT.io, error);
    case "readOnly":
      return new StartRefusal(
        `The data folder ${folder} cannot be written to. Make it writable, or set YAKAMOZ_DATA.`,
        EXIT.readOnly,
        error,
      );
    case "busy":
      return new StartRefusal(`Another program holds the data file in ${folder}. Stop it first.`, EXIT.locked, error);
    case "damaged":
      return new StartRefusal(
        `The data file in ${folder} is damaged (${said}). Restore a backup: npm run restore <file>.`,
        EXIT.damaged,
        error,
      );
    default:
      return new StartRefusal(`The data file in ${folder} could not be opened: ${said}`, EXIT.io, error);
  }
}
