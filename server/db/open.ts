import { mkdirSync } from "node:fs";
import { dirname, join } from "node:path";
import Database from "libsql";
import { Kysely, Migrator, type Transaction } from "kysely";
import { ShopDialect } from "./dialect";
import { MIGRATIONS } from "./migrations";
import type { Schema } from "./schema";

export type Db = Kysely<Schema>;
/** A transaction of it: what writes takes one, so that no write stands outside a command. */
export type Tx = Transaction<Schema>;

/** Folder of the shop's data: YAKAMOZ_DATA, else ./data. */
export const dataFolder = () => process.env.YAKAMOZ_DATA ?? "data";
export const FILE_NAME = "yakamoz.sqlite";
export const databaseFile = (folder = dataFolder()) => join(folder, FILE_NAME);

/** How long a write waits for another process's to end. */
const BUSY_MS = 5000;

/**
 * Opens the file (":memory:" for tests): write-ahead log, foreign keys, and a full sync at every commit, so that what has been
 * acknowledged survives a power cut.
 */
export function openDatabase(file: string): Db {
  if (file !== ":memory:") mkdirSync(dirname(file), { recursive: true });
  const raw = new Database(file);
  raw.pragma(`busy_timeout = ${BUSY_MS}`);
  raw.pragma("journal_mode = WAL");
  raw.pragma("synchronous = FULL");
  raw.pragma("foreign_keys = ON");
  return new Kysely<Schema>({ dialect: new ShopDialect(raw) });
}

/** Brings the schema up to date. @throws the first migration's error, with its name. */
export async function migrate(db: Db): Promise<string[]> {
  const migrator = new Migrator({ db, provider: { getMigrations: () => Promise.resolve(MIGRATIONS) } });
  const { error, results = [] } = await migrator.migrateToLatest();
  const failed = results.find((r) => r.status === "Error");
  if (error) throw new Error(`migration ${failed?.migrationName ?? ""} failed`, { cause: error });
  return results.filter((r) => r.status === "Success").map((r) => r.migrationName);
}
