import { sql } from "kysely";
import type { Db, Tx } from "../db/open";
import type { Schema } from "../db/schema";

/**
 * Rows of the shop that devices keep, so that they can work while the server is away: of jobs that are open all, of the rest what pages of those
 * jobs ask for. No secret, no picture and no form that was sent is among them.
 */
const KEYS = {
  shop: "id",
  person: "id",
  product: "id",
  product_revision: "id",
  gun: "id",
  house_way: "id",
  booth_plan: "id",
  container: "id",
  card: "id",
  job: "id",
  panel: "id",
  ledger_entry: "id",
  clock: "id",
  photo: "id",
  panel_summary: "panel_id",
  cause_word: "entry_id",
  practice_session: "id",
} as const satisfies Partial<Record<keyof Schema, string>>;
export type ReplicatedTable = keyof typeof KEYS;
export const REPLICATED = Object.keys(KEYS) as readonly ReplicatedTable[];

/** Which rows of a table go to devices, as a condition on it; all of it where none is named. */
const OF_OPEN_JOBS = sql`select id from job where archived_at_ms is null`;
const OF_OPEN_PANELS = sql`select id from panel where job_id in (${OF_OPEN_JOBS})`;
const ONLY: Partial<Record<ReplicatedTable, ReturnType<typeof sql>>> = {
  job: sql`archived_at_ms is null`,
  panel: sql`job_id in (${OF_OPEN_JOBS})`,
  ledger_entry: sql`panel_id in (${OF_OPEN_PANELS})`,
  clock: sql`panel_id in (${OF_OPEN_PANELS})`,
  photo: sql`id in (select body_json ->> '$.photoId' from ledger_entry where kind in ('defect', 'neighbour') and panel_id in (${OF_OPEN_PANELS}))`,
};
/** Columns that are left out, and what stands in their place. */
const BLANK: Partial<Record<ReplicatedTable, Record<string, string | null>>> = {
  person: { secret_hash: "" },
  photo: { bytes: "", original: null },
};

export interface RowChange {
  table: ReplicatedTable;
  key: string;
  /** Null: it is not there any more, or not for devices. */
  row: Record<string, string | number | null> | null;
}
export interface RowChanges {
  seq: number;
  /** What is kept already goes: these are all. */
  whole: boolean;
  rows: RowChange[];
}

/** How many changes of rows there have been. */
export const newestChange = async (db: Db): Promise<number> =>
  (await sql<{ seq: number | null }>`select max(seq) as seq from row_change`.execute(db)).rows[0]!.seq ?? 0;

/** Rows that have changed since a number of changes; all of them where that is null, where it is of no use, or where a job has been put away or taken out. */
export async function rowsSince(db: Db, since: number | null): Promise<RowChanges> {
  const seq = await newestChange(db);
  if (since === null || since > seq) return { seq, whole: true, rows: await allRows(db) };
  const { rows: changed } = await sql<{ tbl: string; key: string }>`select tbl, key from row_change where seq > ${since}`.execute(db);
  if (changed.some((c) => c.tbl === WHOLE)) return { seq, whole: true, rows: await allRows(db) };
  const rows: RowChange[] = [];
  for (const table of REPLICATED) {
    const keys = changed.filter((c) => c.tbl === table).map((c) => c.key);
    if (keys.length === 0) continue;
    const found = new Map((await read(db, table, keys)).map((r) => [r.key, r]));
    rows.push(...keys.map((key) => found.get(key) ?? { table, key, row: null }));
  }
  return { seq, whole: false, rows };
}

const allRows = async (db: Db): Promise<RowChange[]> => (await Promise.all(REPLICATED.map((t) => read(db, t, null)))).flat();

const A_TIME = 400;
async function read(db: Db, table: ReplicatedTable, keys: readonly string[] | null): Promise<RowChange[]> {
  const only = ONLY[table] ?? sql`1`;
  const key = KEYS[table];
  const blank = BLANK[table] ?? {};
  const rows: Record<string, string | number | null>[] = [];
  if (keys === null) rows.push(...(await query(db, sql`select * from ${sql.table(table)} where ${only}`)));
  for (let i = 0; keys !== null && i < keys.length; i += A_TIME) {
    const some = sql.join(keys.slice(i, i + A_TIME));
    rows.push(...(await query(db, sql`select * from ${sql.table(table)} where cast(${sql.ref(key)} as text) in (${some}) and ${only}`)));
  }
  return rows.map((row) => ({ table, key: String(row[key]), row: { ...row, ...blank } }));
}
const query = async (db: Db, asked: ReturnType<typeof sql>) =>
  (await (asked as ReturnType<typeof sql<Record<string, string | number | null>>>).execute(db)).rows;

/** What is written down of a job that was put away, brought back or taken out: more than its own row comes or goes with it. */
const WHOLE = "*";

/** Puts rows in as the shop told them, in the place of all that a table has. */
export async function putRows(db: Tx, rows: readonly RowChange[]): Promise<void> {
  for (const table of new Set(rows.map((r) => r.table))) {
    await sql`delete from ${sql.table(table)}`.execute(db);
    for (const { row } of rows.filter((r) => r.table === table)) if (row) await db.insertInto(table).values(row).execute();
  }
}
