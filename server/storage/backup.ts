import { closeSync, existsSync, fsyncSync, mkdirSync, openSync, readdirSync, renameSync, rmSync, statSync } from "node:fs";
import { basename, dirname, join } from "node:path";
import Database from "libsql";
import { FILE_NAME } from "../db/open";
import { isRunning } from "./running-process";

export const BACKUPS = "backups";

/** The stamp in a backup's name: year to second, in UTC. */
export const stampOf = (now_ms: number): string => new Date(now_ms).toISOString().slice(0, 19).replace(/[-:]/g, "").replace("T", "-");

/** Where a backup of a folder goes when nobody says otherwise. */
export const backupFile = (folder: string, now_ms: number, why = ""): string =>
  join(folder, BACKUPS, `${basename(FILE_NAME, ".sqlite")}-${why ? `${why}-` : ""}${stampOf(now_ms)}.sqlite`);

/**
 * Writes a consistent copy of a data file while the server may be running (VACUUM INTO), under a partial name; checks it; and only a sound
 * copy, safely on the disk, gets its final name.
 * @throws Error when the source is missing, the target exists already, or the copy is not sound
 */
export function backupTo(source: string, target: string): { bytes: number } {
  if (!existsSync(source)) throw new Error(`there is no database at ${source}`);
  if (existsSync(target)) throw new Error(`${target} exists already; nothing was overwritten`);
  mkdirSync(dirname(target), { recursive: true });
  removePartials(dirname(target));
  const partial = `${target}.${process.pid}.partial`;
  removeDatabase(partial);
  try {
    const db = new Database(source);
    try {
      db.pragma("busy_timeout = 5000");
      db.exec(`vacuum into '${partial.replaceAll("'", "''")}'`);
    } finally {
      db.close();
    }
    const bytes = soundSize(partial);
    syncToDisk(partial);
    renameSync(partial, target);
    syncToDisk(dirname(target));
    return { bytes };
  } catch (error) {
    removeDatabase(partial);
    throw error;
  }
}

/** What a backup that was cut off has left: a partial copy whose writer is gone. One that is being written stays. */
export function removePartials(folder: string): void {
  const names = existsSync(folder) ? readdirSync(folder) : [];
  for (const name of names) {
    const partial = /\.sqlite(?:\.(\d+))?\.partial(?:-wal|-shm|-journal)?$/.exec(name);
    if (!partial) continue;
    const [, pid] = partial;
    const left = pid === undefined ? Date.now() - statSync(join(folder, name)).mtimeMs > OLD_PARTIAL_MS : !isRunning(Number(pid));
    if (left) rmSync(join(folder, name), { force: true });
  }
}
/** Copies of earlier versions do not say whose they are: no backup takes so long. */
const OLD_PARTIAL_MS = 3_600_000;

/** Size of a sound copy. @throws Error when it is not sound */
function soundSize(file: string): number {
  const copy = new Database(file);
  try {
    const sound = copy.prepare("pragma integrity_check").get() as { integrity_check?: string };
    if (sound.integrity_check !== "ok") throw new Error(`the copy is not sound: ${sound.integrity_check ?? "no answer"}`);
    return (copy.prepare("select page_count * page_size as bytes from pragma_page_count, pragma_page_size").get() as { bytes: number })
      .bytes;
  } finally {
    copy.close();
  }
}

/** Makes sure that a file's bytes (or a folder's names) are on the disk. */
export function syncToDisk(path: string): void {
  const fd = openSync(path, "r");
  try {
    fsyncSync(fd);
  } finally {
    closeSync(fd);
  }
}

/** A database file and what SQLite keeps beside it. */
export const databaseParts = (file: string) => [file, `${file}-wal`, `${file}-shm`, `${file}-journal`] as const;

export function removeDatabase(file: string): void {
  for (const part of databaseParts(file)) rmSync(part, { force: true });
}
