import { sql } from "kysely";
import { LRUCache } from "lru-cache";
import { z } from "zod";
import { sameList } from "#core/kernel/same-list";
import { ENTRY_KINDS, type EntryKind, LEDGER_BODIES } from "#core/record/bodies";
import { JOB_WIDE, type LedgerEntry } from "#core/record/entry";
import type { Db, Tx } from "../db/open";
import type { LedgerRow } from "../db/schema";
import { readOnce } from "./read-once";

/** A row that this version cannot read: an unknown kind, or a body out of its bounds. It is kept, shown as such, and counts for nothing. */
export interface UnreadEntry {
  id: string;
  kind: string;
  at_ms: number;
  by: string;
  why: "unknown kind" | "body not understood";
}

/** So much text is remembered of each kind: a ledger is asked for with every page, and its rows never change. */
const BODY_BYTES = 4e6;
const READ_BODY = new Map(ENTRY_KINDS.map((kind) => [kind, readOnce<unknown>(LEDGER_BODIES[kind], BODY_BYTES)]));

/** What a body holds; null where it is out of its bounds, or no JSON. */
function bodyOf(kind: EntryKind, text: string): { body: unknown } | null {
  try {
    return { body: READ_BODY.get(kind)!(text) };
  } catch (error) {
    if (error instanceof z.ZodError || error instanceof SyntaxError) return null;
    throw error;
  }
}

function readRow(row: LedgerRow): { entry: LedgerEntry } | { unread: UnreadEntry } {
  const unread = (why: UnreadEntry["why"]) => ({ unread: { id: row.id, kind: row.kind, at_ms: row.at_ms, by: row.by_role, why } });
  if (!Object.hasOwn(LEDGER_BODIES, row.kind)) return unread("unknown kind");
  const kind = row.kind as EntryKind;
  const body = bodyOf(kind, row.body_json);
  if (!body) return unread("body not understood");
  const entry = {
    id: row.id,
    panelId: row.panel_id,
    kind,
    body: body.body,
    seq: row.seq,
    at_ms: row.at_ms,
    recordedAt_ms: row.recorded_at_ms,
    by: row.by_role,
    simulated: row.simulated === 1,
    supersedes: row.supersedes_id,
    ...(row.person_id || row.device_id ? { who: { personId: row.person_id, deviceId: row.device_id } } : {}),
  } as LedgerEntry;
  return { entry };
}

/** A panel's whole ledger in the order in which it was written, superseded entries too; and the rows this version cannot read. */
export interface PanelLedger {
  entries: LedgerEntry[];
  unread: UnreadEntry[];
}
interface KeptLedger extends PanelLedger {
  rows: number;
  /** The row that was written last. */
  last: { id: string; seq: number } | null;
}
const KEPT_ROWS_MOST = 100_000;
const KEPT_JOBS_MOST = 60;
/** Ledgers as they were read last: rows are only ever added, so that of a known ledger only what came since is read. And what was put together of them. */
interface Kept {
  ledgers: LRUCache<string, KeptLedger>;
  jobs: LRUCache<string, KeptJob>;
}
const newKept = (): Kept => ({
  ledgers: new LRUCache({ maxSize: KEPT_ROWS_MOST, sizeCalculation: (l) => l.rows + 1 }),
  jobs: new LRUCache({ max: KEPT_JOBS_MOST }),
});
const keptByFile = new WeakMap<object, Kept>();
function keptOf(db: Db): Kept {
  const file = db.getExecutor().adapter; // one for a file, within a transaction too
  const kept = keptByFile.get(file) ?? newKept();
  keptByFile.set(file, kept);
  return kept;
}

/** Nothing is known any more: rows are going to be deleted, and may come back changed. */
export function forgetKeptLedgers(db: Db): void {
  const { ledgers, jobs } = keptOf(db);
  ledgers.clear();
  jobs.clear();
}

/** @returns arrays that are kept: nobody changes them */
export async function readLedger(db: Db, panelId: string): Promise<KeptLedger> {
  const kept = keptOf(db).ledgers;
  const known = kept.get(panelId);
  const now = (known && (await readOn(db, panelId, known))) ?? (await readWhole(db, panelId));
  if (now !== known) kept.set(panelId, now);
  return now;
}

async function readWhole(db: Db, panelId: string): Promise<KeptLedger> {
  const rows = await db.selectFrom("ledger_entry").selectAll().where("panel_id", "=", panelId).orderBy("seq").execute();
  return addedTo({ entries: [], unread: [], rows: 0, last: null }, rows);
}

/** A known ledger with what was written since; null where it is not the one that was known: what was read in a transaction that failed. */
async function readOn(db: Db, panelId: string, known: KeptLedger): Promise<KeptLedger | null> {
  const { last } = known;
  if (!last) return null;
  const ofPanel = db.selectFrom("ledger_entry").where("panel_id", "=", panelId);
  const since = await ofPanel.selectAll().where("seq", ">=", last.seq).orderBy("seq").execute();
  const [first, ...added] = since;
  if (first?.id !== last.id) return null;
  const count = await ofPanel.select((e) => e.fn.countAll<number>().as("n")).executeTakeFirstOrThrow();
  if (Number(count.n) !== known.rows + added.length) return null;
  return added.length === 0 ? known : addedTo(known, added);
}

function addedTo(known: KeptLedger, rows: readonly LedgerRow[]): KeptLedger {
  const read = rows.map(readRow);
  const last = rows.at(-1);
  return {
    entries: Object.freeze([...known.entries, ...read.flatMap((r) => ("entry" in r ? [r.entry] : []))]) as LedgerEntry[],
    unread: [...known.unread, ...read.flatMap((r) => ("unread" in r ? [r.unread] : []))],
    rows: known.rows + rows.length,
    last: last ? { id: last.id, seq: last.seq } : known.last,
  };
}

/** An entry without what it holds: enough to tell which entries count. */
export type EntryOutline = Pick<LedgerEntry, "id" | "kind" | "seq" | "supersedes"> & { body: { whole: boolean } };

/** A panel's whole ledger without its bodies, in the order of writing, entries of unknown kinds too. */
export async function ledgerOutline(db: Db, panelId: string): Promise<EntryOutline[]> {
  const rows = await db
    .selectFrom("ledger_entry")
    .select([
      "id",
      "kind",
      "seq",
      "supersedes_id",
      sql<number | null>`case when kind = 'strike' and json_valid(body_json) then body_json ->> '$.whole' end`.as("whole"),
    ])
    .where("panel_id", "=", panelId)
    .orderBy("seq")
    .execute();
  return rows.map((r): EntryOutline => ({
    id: r.id,
    kind: r.kind as EntryKind,
    seq: r.seq,
    supersedes: r.supersedes_id,
    body: { whole: r.whole === 1 },
  }));
}

/** Some rows of a ledger by their ids, in the order of writing, each as it can be read or as what cannot. */
export async function readEntries(db: Db, ids: readonly string[]): Promise<ReturnType<typeof readRow>[]> {
  if (ids.length === 0) return [];
  return (await db.selectFrom("ledger_entry").selectAll().where("id", "in", ids).orderBy("seq").execute()).map(readRow);
}

/** Every entry of a panel that can be read, superseded ones too, in the order in which they were written down. */
export const listEntries = async (db: Db, panelId: string): Promise<LedgerEntry[]> => (await readLedger(db, panelId)).entries;

/** Entries of one kind on a job's panels, in the order of writing, with whatever takes them out or puts them right. */
export async function entriesOfKind(db: Db, jobId: string, kind: EntryKind): Promise<LedgerEntry[]> {
  const rows = await db
    .selectFrom("ledger_entry as e")
    .innerJoin("panel as p", "p.id", "e.panel_id")
    .selectAll("e")
    .where("p.job_id", "=", jobId)
    .where((eb) => eb.or([eb("e.kind", "=", kind), eb("e.supersedes_id", "is not", null)]))
    .orderBy("e.seq")
    .execute();
  return rows.map(readRow).flatMap((r) => ("entry" in r ? [r.entry] : []));
}

/** The ledgers of a job's panels, and what of them may serve its others. */
export interface JobLedgers {
  ledgers: ReadonlyMap<string, LedgerEntry[]>;
  /** With the product of the panel that it was written on. */
  shared: readonly { entry: LedgerEntry; revision: string }[];
  /** What was put together for a panel: it stands as long as nothing is written on any of them. */
  serving: Map<string, LedgerEntry[]>;
}
interface KeptJob {
  /** Its panels with their ledgers and products, one after the other. */
  of: readonly unknown[];
  job: JobLedgers;
}

/** What serves a job's other panels, of one ledger. */
const servesOthers = new WeakMap<KeptLedger, LedgerEntry[]>();
const FOR_OTHERS: readonly string[] = [...JOB_WIDE, "strike"];
function forOthers(ledger: KeptLedger): LedgerEntry[] {
  const found =
    servesOthers.get(ledger) ?? ledger.entries.filter((e) => FOR_OTHERS.includes(e.kind)).map((e) => ({ ...e, elsewhere: true as const }));
  servesOthers.set(ledger, found);
  return found;
}

/** The ledgers of all panels of a job together: one question tells which of those that are known have been written on since. */
export async function jobLedgers(db: Db, jobId: string): Promise<JobLedgers> {
  const heads = await db
    .selectFrom("panel as p")
    .where("p.job_id", "=", jobId)
    .select((eb) => [
      "p.id",
      "p.product_revision_id as revision",
      eb.selectFrom("ledger_entry as e").select("e.id").whereRef("e.panel_id", "=", "p.id").orderBy("e.seq", "desc").limit(1).as("lastId"),
    ])
    .execute();
  const { ledgers, jobs } = keptOf(db);
  const panels: { id: string; revision: string; ledger: KeptLedger }[] = [];
  for (const { id, revision, lastId } of heads) {
    const known = ledgers.get(id);
    panels.push({ id, revision, ledger: known && (known.last?.id ?? null) === lastId ? known : await readLedger(db, id) });
  }
  const of = panels.flatMap(({ id, revision, ledger }) => [id, revision, ledger]);
  const before = jobs.get(jobId);
  if (before && sameList(before.of, of)) return before.job;
  const job: JobLedgers = {
    ledgers: new Map(panels.map(({ id, ledger }) => [id, ledger.entries])),
    shared: panels.flatMap(({ revision, ledger }) => forOthers(ledger).map((entry) => ({ entry, revision }))),
    serving: new Map(),
  };
  jobs.set(jobId, { of, job });
  return job;
}

/**
 * A panel's ledger together with what serves it from the job's other panels, in the order of writing: what a panel's figures are derived from.
 * @param job its ledgers, where several panels of it are looked at together
 */
export async function entriesServing(
  db: Db,
  panel: { id: string; name: string; jobId: string; productRevisionId: string },
  job?: JobLedgers,
): Promise<LedgerEntry[]> {
  const { ledgers, shared, serving } = job ?? (await jobLedgers(db, panel.jobId));
  const key = JSON.stringify([panel.id, panel.name, panel.productRevisionId]);
  const known = serving.get(key);
  if (known) return known;
  const own = ledgers.get(panel.id) ?? [];
  const elsewhere = shared.flatMap(({ revision, entry }) => {
    if (entry.panelId === panel.id) return [];
    // Another product's coats say nothing of this one's mix or pace; a pot made for certain panels serves those (older ones have their names).
    const same = revision === panel.productRevisionId;
    const serves =
      entry.kind === "mix"
        ? same && (entry.body.panels.length === 0 || entry.body.panels.some((p) => p === panel.id || p === panel.name))
        : entry.kind === "coat" || entry.kind === "matteMix"
          ? same
          : true;
    return serves ? [entry] : [];
  });
  const found = elsewhere.length === 0 ? own : (Object.freeze([...own, ...elsewhere].sort((a, b) => a.seq - b.seq)) as LedgerEntry[]);
  serving.set(key, found);
  return found;
}

export async function getEntry(db: Db, id: string): Promise<LedgerEntry | null> {
  const row = await db.selectFrom("ledger_entry").selectAll().where("id", "=", id).executeTakeFirst();
  const read = row && readRow(row);
  return read && "entry" in read ? read.entry : null;
}

/** What an entry is about: itself, or what was taken out by it, or put back by taking out what took it out. */
export async function concerned(db: Db, entry: LedgerEntry): Promise<{ entry: LedgerEntry; became: "taken out" | "put back" | null }> {
  let became: "taken out" | "put back" | null = null;
  for (let at: LedgerEntry | null = entry; at; at = await getEntry(db, at.supersedes)) {
    if (at.kind !== "strike" || at.supersedes === null) return { entry: at, became };
    became = became === "taken out" ? "put back" : "taken out";
  }
  return { entry, became: null };
}

/** Whether an entry is somebody's own; an unknown one is nobody's. */
export async function isOwnEntry(db: Db, id: string, personId: string | null): Promise<boolean> {
  const row = await db.selectFrom("ledger_entry").select("person_id").where("id", "=", id).executeTakeFirst();
  return row !== undefined && row.person_id !== null && row.person_id === personId;
}

/** A panel's entries that are not somebody's own. */
export async function entriesOfOthers(db: Db, panelId: string, personId: string | null): Promise<string[]> {
  const rows = await db
    .selectFrom("ledger_entry")
    .select("id")
    .where("panel_id", "=", panelId)
    .where((eb) => (personId === null ? eb.lit(true) : eb.or([eb("person_id", "is", null), eb("person_id", "!=", personId)])))
    .execute();
  return rows.map((r) => r.id);
}

/** The entry of a panel that was written last; null for an empty ledger. */
export async function newestEntryId(db: Db, panelId: string): Promise<string | null> {
  const row = await db
    .selectFrom("ledger_entry")
    .select("id")
    .where("panel_id", "=", panelId)
    .orderBy("seq", "desc")
    .limit(1)
    .executeTakeFirst();
  return row?.id ?? null;
}

/** Those of some ids that stand in the file already. */
export async function knownEntryIds(db: Db, ids: readonly string[]): Promise<string[]> {
  const CHUNK = 500;
  const found: string[] = [];
  for (let i = 0; i < ids.length; i += CHUNK) {
    const rows = await db
      .selectFrom("ledger_entry")
      .select("id")
      .where("id", "in", ids.slice(i, i + CHUNK))
      .execute();
    found.push(...rows.map((r) => r.id));
  }
  return found;
}

export interface NewEntry {
  id: string;
  panelId: string;
  kind: EntryKind;
  body: unknown;
  at_ms: number;
  recordedAt_ms: number;
  by: string;
  simulated: boolean;
  supersedes: string | null;
  who?: LedgerEntry["who"] | undefined;
}

/** Appends entries, numbered on from the last one of the file; within a transaction. */
export async function insertEntries(db: Tx, entries: readonly NewEntry[]): Promise<void> {
  const CHUNK = 500; // stays under SQLite's limit of bound values
  const newest = await db
    .selectFrom("ledger_entry")
    .select((e) => e.fn.max("seq").as("seq"))
    .executeTakeFirst();
  const next = Number(newest?.seq ?? 0) + 1;
  for (let i = 0; i < entries.length; i += CHUNK)
    await db
      .insertInto("ledger_entry")
      .values(
        entries.slice(i, i + CHUNK).map((e, k) => ({
          id: e.id,
          seq: next + i + k,
          panel_id: e.panelId,
          kind: e.kind,
          body_json: JSON.stringify(e.body),
          at_ms: e.at_ms,
          recorded_at_ms: e.recordedAt_ms,
          by_role: e.by,
          simulated: e.simulated ? 1 : 0,
          supersedes_id: e.supersedes,
          client_key: null,
          person_id: e.who?.personId ?? null,
          device_id: e.who?.deviceId ?? null,
        })),
      )
      .execute();
}

/** The last place of the whole file's order of writing. */
export const newestSeq = async (db: Db): Promise<number> =>
  (
    await db
      .selectFrom("ledger_entry")
      .select(({ fn }) => fn.max("seq").as("seq"))
      .executeTakeFirst()
  )?.seq ?? 0;

/** Every entry that was written after a place of the file's order, as far as it can be read. */
export async function entriesSince(db: Db, seq: number): Promise<LedgerEntry[]> {
  const rows = await db.selectFrom("ledger_entry").selectAll().where("seq", ">", seq).orderBy("seq").execute();
  return rows.map(readRow).flatMap((r) => ("entry" in r ? [r.entry] : []));
}
