import { existsSync, mkdirSync } from "node:fs";
import { dirname } from "node:path";
import Database from "libsql";

/** Writes a consistent copy of the file while the server may be running (VACUUM INTO), and checks it. @throws when it exists already or is not sound. */
export function backupTo(source: string, target: string): { bytes: number } {
  if (!existsSync(source)) throw new Error(`there is no database at ${source}`);
  if (existsSync(target)) throw new Error(`${target} exists already; nothing was overwritten`);
  mkdirSync(dirname(target), { recursive: true });
  const db = new Database(source);
  try {
    db.exec(`vacuum into '${target.replaceAll("'", "''")}'`);
  } finally {
    db.close();
  }
  const copy = new Database(target);
  try {
    const sound = copy.prepare("pragma integrity_check").get() as { integrity_check?: string };
    if (sound.integrity_check !== "ok") throw new Error(`the copy is not sound: ${sound.integrity_check ?? "no answer"}`);
    const size = copy.prepare("select page_count * page_size as bytes from pragma_page_count, pragma_page_size").get() as { bytes: number };
    return { bytes: size.bytes };
  } finally {
    copy.close();
  }
}
