import { existsSync, readFileSync, renameSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import Database from "libsql";
import { run } from "../commands/run";
import type { ServerContext } from "../context";
import { ACCESS_TABLES, type AccessRows, replaceAccess } from "../repos/device-repo";
import { syncToDisk } from "./backup";

/**
 * Who may come in is of today, whatever else is brought back: a tablet that was lost and ended must not come in again with last week's backup. What
 * stands in the file that is set aside is written beside it before it is exchanged, and into the file that takes its place when that is opened.
 */
const keptAccess = (folder: string) => join(folder, "people-kept.json");

/** Writes down who may come in by a file; of one that cannot be read, or is older than people, nothing. */
export function keepAccess(file: string, folder: string): void {
  const rows = readRows(file);
  if (!rows) return;
  const kept = keptAccess(folder);
  writeFileSync(`${kept}.partial`, JSON.stringify(rows), { mode: 0o600 });
  syncToDisk(`${kept}.partial`);
  renameSync(`${kept}.partial`, kept); // whole, or not there
}

function readRows(file: string): AccessRows | null {
  if (!existsSync(file)) return null;
  try {
    const db = new Database(file, { readonly: true });
    try {
      return Object.fromEntries(ACCESS_TABLES.map((t) => [t, db.prepare(`select * from ${t}`).all()])) as AccessRows;
    } finally {
      db.close();
    }
  } catch {
    return null;
  }
}

/** Puts what was kept into the file that was brought back. */
export async function takeUpAccess(ctx: ServerContext, folder: string): Promise<void> {
  const file = keptAccess(folder);
  if (!existsSync(file)) return;
  const rows = JSON.parse(readFileSync(file, "utf8")) as AccessRows;
  await run(ctx, null, ({ db }) => replaceAccess(db, rows));
  rmSync(file);
}
