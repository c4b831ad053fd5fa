import { copyFileSync, existsSync, mkdirSync, renameSync, rmSync, writeFileSync } from "node:fs";
import { basename, join } from "node:path";
import { databaseFile } from "../db/open";
import { backupTo, databaseParts, removeDatabase, stampOf, syncToDisk } from "./backup";
import { checkFile } from "./file-check";
import { keepAccess } from "./keep-access";
import { lockFolder } from "./lock";

/** Stands while a restore is under way: a file half put back must not be opened as if it were the shop's. */
export const restoreMarker = (folder: string) => join(folder, "restore-under-way");

/**
 * Puts a backup in the place of a folder's data file. The backup is checked first; what was there is set aside whole, never overwritten; a
 * restore that is cut off is finished at the next start, or by running it again.
 * @returns where the old file was set aside, null when there was none
 * @throws Error in words when the program is running on the folder, or the backup is missing, damaged, foreign or newer
 */
export async function restoreFrom(backup: string, folder: string, now_ms: number): Promise<{ setAside: string | null; bytes: number }> {
  const state = checkFile(backup);
  if (!state.ok) throw new Error(`${state.words} Nothing was changed.`);
  if (state.empty) throw new Error(`${backup} holds no shop. Nothing was changed.`);
  const { release } = await lockFolder(folder, "a restore");
  try {
    const file = databaseFile(folder);
    const incoming = `${file}.incoming`;
    removeDatabase(incoming);
    const { bytes } = backupTo(backup, incoming); // a whole file of its own, whatever lies beside the backup
    const marker = restoreMarker(folder);
    if (!existsSync(marker)) keepAccess(file, folder); // of one that was cut off it was kept then
    writeFileSync(marker, backup);
    syncToDisk(folder);
    const there = databaseParts(file).filter((part) => existsSync(part));
    const aside = join(folder, "set-aside", stampOf(now_ms));
    if (there.length > 0) {
      mkdirSync(aside, { recursive: true });
      for (const part of there) {
        const kept = join(aside, basename(part));
        if (existsSync(kept)) continue; // set aside by the run that was cut off
        copyFileSync(part, `${kept}.partial`);
        syncToDisk(`${kept}.partial`);
        renameSync(`${kept}.partial`, kept);
      }
      syncToDisk(aside);
    }
    for (const part of databaseParts(file).slice(1)) rmSync(part, { force: true }); // a log that belongs to the old file
    renameSync(incoming, file);
    syncToDisk(folder);
    rmSync(marker);
    return { setAside: there.length > 0 ? aside : null, bytes };
  } finally {
    await release();
  }
}
