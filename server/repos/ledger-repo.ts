import { sql } from "kysely";
import { type BodyOf, ENTRY_KINDS, type EntryKind, LEDGER_BODIES } from "#core/ledger/bodies";
import type { EntryOf, LedgerEntry } from "#core/ledger/entry";
import type { PanelCounts } from "#core/ledger/station";
import type { Db } from "../db/open";
import type { LedgerRow } from "../db/schema";

/** A stored row as an entry. @throws ZodError when the file holds a body this version does not know. */
function toEntry(row: LedgerRow): LedgerEntry {
  const kind = ENTRY_KINDS.find((k) => k === row.kind);
  if (!kind) throw new Error(`ledger entry ${row.id} has an unknown kind "${row.kind}"`);
  return {
    id: row.id,
    panelId: row.panel_id,
    kind,
    body: LEDGER_BODIES[kind].parse(JSON.parse(row.body_json)),
    at_ms: row.at_ms,
    recordedAt_ms: row.recorded_at_ms,
    by: row.by_role,
    simulated: row.simulated === 1,
    supersedes: row.supersedes_id,
  } as LedgerEntry;
}

/** Every entry of a panel, superseded ones too, in the order in which they were written down. */
export async function listEntries(db: Db, panelId: string): Promise<LedgerEntry[]> {
  const rows = await db
    .selectFrom("ledger_entry")
    .selectAll()
    .where("panel_id", "=", panelId)
    .orderBy("recorded_at_ms")
    .orderBy(sql`rowid`)
    .execute();
  return rows.map(toEntry);
}

export async function getEntry(db: Db, id: string): Promise<LedgerEntry | null> {
  const row = await db.selectFrom("ledger_entry").selectAll().where("id", "=", id).executeTakeFirst();
  return row ? toEntry(row) : null;
}

export async function findEntryByKey(db: Db, clientKey: string): Promise<LedgerEntry | null> {
  const row = await db.selectFrom("ledger_entry").selectAll().where("client_key", "=", clientKey).executeTakeFirst();
  return row ? toEntry(row) : null;
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
  clientKey: string | null;
}

export async function insertEntries(db: Db, entries: readonly NewEntry[]): Promise<void> {
  const CHUNK = 500; // stays under SQLite's limit of bound values
  for (let i = 0; i < entries.length; i += CHUNK)
    await db
      .insertInto("ledger_entry")
      .values(
        entries.slice(i, i + CHUNK).map((e) => ({
          id: e.id,
          panel_id: e.panelId,
          kind: e.kind,
          body_json: JSON.stringify(e.body),
          at_ms: e.at_ms,
          recorded_at_ms: e.recordedAt_ms,
          by_role: e.by,
          simulated: e.simulated ? 1 : 0,
          supersedes_id: e.supersedes,
          client_key: e.clientKey,
        })),
      )
      .execute();
}

/** True for an entry that no living entry supersedes (a strike that was itself struck no longer counts). */
const living = (id: string) =>
  sql<boolean>`not exists (select 1 from ledger_entry s where s.supersedes_id = ${sql.ref(id)}
    and not exists (select 1 from ledger_entry t where t.supersedes_id = s.id))`;
export const livingEntry = living;

/** Living entries of one kind on all panels, oldest first. */
export async function listLivingOfKind<K extends EntryKind>(db: Db, kind: K): Promise<EntryOf<K>[]> {
  const rows = await db
    .selectFrom("ledger_entry")
    .selectAll()
    .where("kind", "=", kind)
    .where(living("ledger_entry.id"))
    .orderBy("recorded_at_ms")
    .execute();
  return rows.map((r) => toEntry(r) as EntryOf<K> & LedgerEntry);
}

/** What has happened on every panel of the open jobs, counted in the file: enough for the Floor. */
export async function countByPanel(
  db: Db,
): Promise<(PanelCounts & { panelId: string; jobId: string; name: string; coatsPlanned: number })[]> {
  const rows = await db
    .selectFrom("panel as p")
    .innerJoin("job as j", "j.id", "p.job_id")
    .leftJoin("ledger_entry as e", (join) => join.onRef("e.panel_id", "=", "p.id").on(living("e.id")))
    .where("j.archived_at_ms", "is", null)
    .groupBy("p.id")
    .orderBy("p.position")
    .select([
      "p.id",
      "p.job_id",
      "p.name",
      "p.coats_planned",
      sql<number>`sum(e.kind = 'coat')`.as("coats"),
      sql<number>`sum(e.kind = 'reading' and e.body_json ->> '$.phase' = 'before')`.as("before"),
      sql<number>`sum(e.kind = 'reading' and e.body_json ->> '$.phase' = 'after')`.as("after"),
      sql<number>`sum(e.kind = 'reading' and e.body_json ->> '$.phase' = 'recheck')`.as("recheck"),
      sql<number>`sum(e.kind = 'defect')`.as("defects"),
      sql<number>`sum(e.kind = 'handOver')`.as("handOvers"),
      sql<string | null>`max(case when e.kind = 'plan' then printf('%016d', e.recorded_at_ms) || e.id end)`.as("plan"),
    ])
    .execute();
  const plans = await planProgress(
    db,
    rows.flatMap((r) => (r.plan ? [r.plan.slice(16)] : [])),
  );
  return rows.map((r) => {
    const plan = r.plan ? plans.get(r.plan.slice(16)) : undefined;
    return {
      panelId: r.id,
      jobId: r.job_id,
      name: r.name,
      coatsPlanned: r.coats_planned,
      coats: r.coats ?? 0,
      readings: { before: r.before ?? 0, after: r.after ?? 0, recheck: r.recheck ?? 0 },
      defects: r.defects ?? 0,
      plan: plan ? { steps: plan.steps, verdict: plan.verdict } : null,
      stepsDone: plan?.done ?? 0,
      handedOver: (r.handOvers ?? 0) > 0,
    };
  });
}

/** Steps of the plans in force and how many are ticked; passes once more and steps of older plans do not count. */
async function planProgress(
  db: Db,
  planIds: readonly string[],
): Promise<Map<string, { steps: number; verdict: BodyOf<"plan">["verdict"]; done: number }>> {
  if (planIds.length === 0) return new Map();
  const plans = await db.selectFrom("ledger_entry").select(["id", "body_json"]).where("id", "in", planIds).execute();
  const steps = await db
    .selectFrom("ledger_entry")
    .where("kind", "=", "step")
    .where(living("ledger_entry.id"))
    .where(sql<boolean>`coalesce(body_json ->> '$.extra', 0) = 0`)
    .where(sql<string>`body_json ->> '$.planId'`, "in", planIds)
    .groupBy(sql`body_json ->> '$.planId'`)
    .select([sql<string>`body_json ->> '$.planId'`.as("planId"), sql<number>`count(*)`.as("done")])
    .execute();
  const done = new Map(steps.map((s) => [s.planId, s.done]));
  return new Map(
    plans.map((p) => {
      const { steps, verdict } = LEDGER_BODIES.plan.parse(JSON.parse(p.body_json));
      return [p.id, { steps: steps.length, verdict, done: done.get(p.id) ?? 0 }];
    }),
  );
}
