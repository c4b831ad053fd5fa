import { FINISHES, type Finish } from "#core/models/ways/house-ways";
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
  finish: Object.hasOwn(FINISHES, r.finish) ? (r.finish as Finish) : "asSprayed",
  wayId: r.way_id,
  createdAt_ms: r.created_at_ms,
  archivedAt_ms: r.archived_at_ms,
});

/** Jobs, newest first. */
export async function listJobs(
  db: Db,
  { archived = false, most, from = 0 }: { archived?: boolean; most?: number; from?: number } = {},
): Promise<Job[]> {
  const rows = await db
    .selectFrom("job")
    .selectAll()
    .where("archived_at_ms", archived ? "is not" : "is", null)
    .orderBy("created_at_ms", "desc")
    .orderBy("id")
    .$if(most !== undefined, (q) => q.limit(most!).offset(from))
    .execute();
  return rows.map(toJob);
}

export async function countJobs(db: Db, { archived = false }: { archived?: boolean } = {}): Promise<number> {
  const row = await db
    .selectFrom("job")
    .where("archived_at_ms", archived ? "is not" : "is", null)
    .select((e) => e.fn.countAll<number>().as("n"))
    .executeTakeFirst();
  return Number(row?.n ?? 0);
}

/** Some jobs in the order of their ids given. */
export async function getJobs(db: Db, ids: readonly string[]): Promise<Job[]> {
  if (ids.length === 0) return [];
  const rows = (await db.selectFrom("job").selectAll().where("id", "in", ids).execute()).map(toJob);
  return ids.flatMap((id) => rows.filter((r) => r.id === id));
}

export async function getJob(db: Db, id: string): Promise<Job | null> {
  const row = await db.selectFrom("job").selectAll().where("id", "=", id).executeTakeFirst();
  return row ? toJob(row) : null;
}

export async function insertJob(db: Db, job: Job): Promise<void> {
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
      client_key: null,
    })
    .execute();
}

export async function setJobArchived(db: Db, id: string, archivedAt_ms: number | null): Promise<boolean> {
  const { numUpdatedRows } = await db.updateTable("job").set({ archived_at_ms: archivedAt_ms }).where("id", "=", id).executeTakeFirst();
  return numUpdatedRows > 0n;
}

export async function setJobWay(db: Db, id: string, wayId: string): Promise<void> {
  await db.updateTable("job").set({ way_id: wayId }).where("id", "=", id).execute();
}

/** What a job is about. */
export async function setJobBrief(
  db: Db,
  id: string,
  { vehicle, colourName, colourCss, finish, wayId }: Omit<Job, "id" | "createdAt_ms" | "archivedAt_ms">,
): Promise<void> {
  await db
    .updateTable("job")
    .set({ vehicle, colour_name: colourName, colour_css: colourCss, finish, way_id: wayId })
    .where("id", "=", id)
    .execute();
}
