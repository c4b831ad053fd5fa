import { FINISHES, type Finish } from "#core/ways/house-ways";
import type { Db } from "../db/open";

export interface Job {
  id: string;
  vehicle: string;
  colourName: string;
  colourCss: string;
  finish: Finish;
  wayId: string;
  createdAt_ms: number;
  archivedAt_ms: number | null;
}
type JobRow = {
  id: string;
  vehicle: string;
  colour_name: string;
  colour_css: string;
  finish: string;
  way_id: string;
  created_at_ms: number;
  archived_at_ms: number | null;
};
const toJob = (r: JobRow): Job => ({
  id: r.id,
  vehicle: r.vehicle,
  colourName: r.colour_name,
  colourCss: r.colour_css,
  finish: r.finish in FINISHES ? (r.finish as Finish) : "asSprayed",
  wayId: r.way_id,
  createdAt_ms: r.created_at_ms,
  archivedAt_ms: r.archived_at_ms,
});

/** Jobs, newest first. */
export async function listJobs(db: Db, { archived = false, most }: { archived?: boolean; most?: number } = {}): Promise<Job[]> {
  const rows = await db
    .selectFrom("job")
    .selectAll()
    .where("archived_at_ms", archived ? "is not" : "is", null)
    .orderBy("created_at_ms", "desc")
    .$if(most !== undefined, (q) => q.limit(most!))
    .execute();
  return rows.map(toJob);
}

export async function getJob(db: Db, id: string): Promise<Job | null> {
  const row = await db.selectFrom("job").selectAll().where("id", "=", id).executeTakeFirst();
  return row ? toJob(row) : null;
}

export async function findJobByKey(db: Db, clientKey: string): Promise<Job | null> {
  const row = await db.selectFrom("job").selectAll().where("client_key", "=", clientKey).executeTakeFirst();
  return row ? toJob(row) : null;
}

export async function insertJob(db: Db, job: Job & { clientKey: string | null }): Promise<void> {
  await db
    .insertInto("job")
    .values({
      id: job.id,
      vehicle: job.vehicle,
      colour_name: job.colourName,
      colour_css: job.colourCss,
      finish: job.finish,
      way_id: job.wayId,
      created_at_ms: job.createdAt_ms,
      archived_at_ms: job.archivedAt_ms,
      client_key: job.clientKey,
    })
    .execute();
}

export async function setJobArchived(db: Db, id: string, archivedAt_ms: number | null): Promise<void> {
  await db.updateTable("job").set({ archived_at_ms: archivedAt_ms }).where("id", "=", id).execute();
}

export async function setJobWay(db: Db, id: string, wayId: string): Promise<void> {
  await db.updateTable("job").set({ way_id: wayId }).where("id", "=", id).execute();
}
