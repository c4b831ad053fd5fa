import { sql } from "kysely";
import { forgetKeptLedgers } from "./ledger-repo";
import type { Db, Tx } from "../db/open";

/** A deleted job as lists show it; its job file is asked for by itself. */
export interface RemovedJob {
  jobId: string;
  vehicle: string;
  removedAt_ms: number;
  by: string;
}

/** Deleted jobs whose files are kept, the last deleted first. */
export async function listRemovedJobs(db: Db): Promise<RemovedJob[]> {
  const rows = await db
    .selectFrom("removed_job")
    .select(["job_id as jobId", "vehicle", "removed_at_ms as removedAt_ms", "by_role as by"])
    .orderBy("removed_at_ms", "desc")
    .orderBy("job_id")
    .execute();
  return rows;
}

/** The job file that a deleted job left; null when there is none. */
export async function removedJobFile(db: Db, jobId: string): Promise<string | null> {
  const row = await db.selectFrom("removed_job").select("bundle_json").where("job_id", "=", jobId).executeTakeFirst();
  return row?.bundle_json ?? null;
}

/** Keeps a job's file and takes all its rows out: pictures only where nothing else shows them. */
export async function removeJob(db: Tx, { file, ...job }: RemovedJob & { file: string }): Promise<void> {
  await db
    .insertInto("removed_job")
    .values({ job_id: job.jobId, vehicle: job.vehicle, removed_at_ms: job.removedAt_ms, by_role: job.by, bundle_json: file })
    .execute();
  const panels = await db.selectFrom("panel").select("id").where("job_id", "=", job.jobId).execute();
  await removePanelRows(
    db,
    panels.map((p) => p.id),
  );
  await db.deleteFrom("job").where("id", "=", job.jobId).execute();
}

/** Takes all rows of some panels out, whose files are kept: pictures only where nothing else shows them. */
export async function removePanelRows(db: Tx, panels: readonly string[]): Promise<void> {
  if (panels.length === 0) return;
  // Of undone entries too: what nothing shows any more does not stay.
  const pictures = await db
    .selectFrom("ledger_entry")
    .select(PICTURE.as("id"))
    .where("panel_id", "in", panels)
    .where("kind", "in", WITH_PICTURE)
    .where(PICTURE, "is not", null)
    .distinct()
    .execute();
  for (const table of ["clock", "cause_word", "panel_summary", "ledger_entry"] as const)
    await db.deleteFrom(table).where("panel_id", "in", panels).execute();
  forgetKeptLedgers(db);
  await db.deleteFrom("panel").where("id", "in", panels).execute();
  const onCards = await sql<{ id: string }>`select value as id from card, json_each(card.body_json, '$.photoIds')`.execute(db);
  const shown = new Set(onCards.rows.map((r) => r.id));
  for (const { id } of pictures)
    if (id !== null && !shown.has(id))
      await db
        .deleteFrom("photo")
        .where("id", "=", id)
        .where((e) => e.not(e.exists(e.selectFrom("ledger_entry").select("id").where("kind", "in", WITH_PICTURE).where(PICTURE, "=", id))))
        .execute();
}

/** Kinds of entries that may show a picture, and which one: as the index has it (migration 0010). */
const WITH_PICTURE = ["defect", "neighbour"] as const;
const PICTURE = sql<string | null>`case when json_valid(body_json) then body_json ->> '$.photoId' end`;

/** Lets a deleted job's file go. @returns false when there was none */
export async function forgetRemovedJob(db: Tx, jobId: string): Promise<boolean> {
  const { numDeletedRows } = await db.deleteFrom("removed_job").where("job_id", "=", jobId).executeTakeFirst();
  return numDeletedRows > 0n;
}
