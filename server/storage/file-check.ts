import { existsSync, statSync } from "node:fs";
import Database from "libsql";
import { MIGRATIONS } from "../db/migrations";
import { storageFaultKind } from "../db/storage-fault";

export type FileState =
  | { ok: true; pending: string[]; empty: boolean }
  /** `newer`: made by a later version of the program; `foreign`: sound, but no shop's file. */
  | { ok: false; why: "missing" | "corrupt" | "newer" | "foreign" | "unreadable"; words: string };

/** Length of the header that every SQLite file has (sqlite.org, "Database File Format", 1.3). */
const HEADER_BYTES = 100;

const bad = (why: Exclude<FileState, { ok: true }>["why"], words: string): FileState => ({ ok: false, why, words });

/** Looks at a data file without changing it: is it sound, whose is it, and which migrations does it still want. */
export function checkFile(file: string): FileState {
  if (!existsSync(file)) return bad("missing", `There is no data file at ${file}.`);
  const bytes = statSync(file).size;
  if (bytes < HEADER_BYTES && !existsSync(`${file}-wal`))
    return bad("corrupt", `The data file ${file} has ${bytes} bytes: it was cut off, and holds no shop. To begin an empty one, remove it.`);
  let raw: Database.Database | null = null;
  try {
    raw = new Database(file);
    raw.pragma("busy_timeout = 5000");
    const sound = raw.prepare("pragma quick_check(1)").get() as { quick_check?: string } | undefined;
    if (sound?.quick_check !== "ok") return bad("corrupt", `The data file ${file} is damaged (${sound?.quick_check ?? "no answer"}).`);
    const names = (raw.prepare("select name from sqlite_master where type = 'table'").all() as { name: string }[]).map((t) => t.name);
    if (names.length === 0) return { ok: true, pending: Object.keys(MIGRATIONS), empty: true };
    if (!names.includes("kysely_migration")) return bad("foreign", `${file} is a database, but not of this program.`);
    const done = (raw.prepare("select name from kysely_migration").all() as { name: string }[]).map((m) => m.name);
    const unknown = done.filter((name) => !Object.hasOwn(MIGRATIONS, name));
    if (unknown.length > 0)
      return bad("newer", `${file} was written by a newer version of this program (it has ${unknown.join(", ")}). Start that version.`);
    return { ok: true, pending: Object.keys(MIGRATIONS).filter((m) => !done.includes(m)), empty: false };
  } catch (error) {
    const kind = storageFaultKind(error);
    const said = error instanceof Error ? error.message : String(error);
    return kind === "damaged"
      ? bad("corrupt", `The data file ${file} is damaged (${said}).`)
      : bad("unreadable", `The data file ${file} cannot be read (${said}).`);
  } finally {
    raw?.close();
  }
}
