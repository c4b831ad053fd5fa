import { sql } from "kysely";
import { houseWay, isOfAll } from "#core/models/ways/house-ways";
import { type HouseWay, ownWay } from "#core/models/ways/way";
import { FINISHES, type Finish } from "#core/models/ways/terms";
import { houseWayBody } from "#core/models/ways/way-body";
import { type JobBrief, NO_BRIEF } from "#core/panel/job-brief";
import { jobBriefBody } from "#core/panel/job-brief-body";
import { type JobColours, ONE_COLOUR } from "#core/models/colour/job-colours";
import { jobColoursBody } from "#core/models/colour/job-colours-body";
import type { Db, Tx } from "../db/open";

export interface Job {
  id: string;
  vehicle: string;
  colourName: string;
  colourCss: string;
  finish: Finish;
  /** The house way as this job has it. */
  way: HouseWay;
  brief: JobBrief;
  colours: JobColours;
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
  way_json: string | null;
  brief_json: string | null;
  colours_json: string | null;
  created_at_ms: number;
  archived_at_ms: number | null;
};
const toJob = (r: JobRow): Job => ({
  id: r.id,
  vehicle: r.vehicle,
  colourName: r.colour_name,
  colourCss: r.colour_css,
  finish: Object.hasOwn(FINISHES, r.finish) ? (r.finish as Finish) : "asSprayed",
  way: wayOfRow(r),
  brief: r.brief_json === null ? NO_BRIEF : jobBriefBody.parse(JSON.parse(r.brief_json)),
  colours: r.colours_json === null ? ONE_COLOUR : jobColoursBody.parse(JSON.parse(r.colours_json)),
  createdAt_ms: r.created_at_ms,
  archivedAt_ms: r.archived_at_ms,
});

/** What a job keeps of its way: its id, and all of it where it is the shop's own. */
const wayToRow = (way: HouseWay) => ({
  way_id: way.id,
  way_json: isOfAll(way.id) ? null : JSON.stringify(houseWayBody.parse(way)),
});
const wayOfRow = ({ way_id, way_json }: Pick<JobRow, "way_id" | "way_json">): HouseWay =>
  way_json === null ? houseWay(way_id) : ownWay(way_id, houseWayBody.parse(JSON.parse(way_json)));

const JOB_COLUMNS = { vehicle: "vehicle", colour: "colour_name", finish: "finish", from: "created_at_ms" } as const;
export interface JobSearch {
  archived?: boolean;
  /** Words that all stand in the vehicle's, the colour's or a panel's name, in small letters. */
  words?: readonly string[];
  finish?: string | null;
}

/** Jobs that a search finds, newest first unless sorted otherwise. */
export async function listJobs(
  db: Db,
  {
    most,
    from = 0,
    sort,
    desc = false,
    ...search
  }: JobSearch & { most?: number; from?: number; sort?: string | null; desc?: boolean } = {},
): Promise<Job[]> {
  const column = sort && Object.hasOwn(JOB_COLUMNS, sort) ? JOB_COLUMNS[sort as keyof typeof JOB_COLUMNS] : null;
  const rows = await searched(db, search)
    .selectAll()
    .$if(column !== null, (q) => q.orderBy(column === "created_at_ms" ? column : sql`lower(${sql.ref(column!)})`, desc ? "desc" : "asc"))
    .orderBy("created_at_ms", "desc")
    .orderBy("id")
    .$if(most !== undefined, (q) => q.limit(most!).offset(from))
    .execute();
  return rows.map(toJob);
}

export async function countJobs(db: Db, search: JobSearch = {}): Promise<number> {
  const row = await searched(db, search)
    .select((e) => e.fn.countAll<number>().as("n"))
    .executeTakeFirst();
  return Number(row?.n ?? 0);
}

function searched(db: Db, { archived = false, words = [], finish = null }: JobSearch) {
  return words.reduce(
    (q, word) =>
      q.where((e) =>
        e.or([
          e(sql<number>`instr(lower(job.vehicle || ' ' || job.colour_name), ${word})`, ">", 0),
          e.exists(
            e
              .selectFrom("panel")
              .select("panel.id")
              .whereRef("panel.job_id", "=", "job.id")
              .where(sql<number>`instr(lower(panel.name), ${word})`, ">", 0),
          ),
        ]),
      ),
    db
      .selectFrom("job")
      .where("archived_at_ms", archived ? "is not" : "is", null)
      .$if(finish !== null, (q) => q.where("finish", "=", finish!)),
  );
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

export async function insertJob(db: Tx, job: Job): Promise<void> {
  await db
    .insertInto("job")
    .values({
      id: job.id,
      vehicle: job.vehicle,
      colour_name: job.colourName,
      colour_css: job.colourCss,
      finish: job.finish,
      ...wayToRow(job.way),
      brief_json: JSON.stringify(job.brief),
      colours_json: JSON.stringify(job.colours),
      created_at_ms: job.createdAt_ms,
      archived_at_ms: job.archivedAt_ms,
      client_key: null,
    })
    .execute();
}

export async function setJobArchived(db: Tx, id: string, archivedAt_ms: number | null): Promise<boolean> {
  const { numUpdatedRows } = await db.updateTable("job").set({ archived_at_ms: archivedAt_ms }).where("id", "=", id).executeTakeFirst();
  return numUpdatedRows > 0n;
}

export async function setJobWay(db: Tx, id: string, way: HouseWay): Promise<void> {
  await db.updateTable("job").set(wayToRow(way)).where("id", "=", id).execute();
}

export async function setJobColours(db: Tx, id: string, colours: JobColours): Promise<void> {
  await db
    .updateTable("job")
    .set({ colours_json: JSON.stringify(colours) })
    .where("id", "=", id)
    .execute();
}

/** What a job is about. */
export async function setJobBrief(
  db: Tx,
  id: string,
  { vehicle, colourName, colourCss, finish, way, brief }: Omit<Job, "id" | "colours" | "createdAt_ms" | "archivedAt_ms">,
): Promise<void> {
  await db
    .updateTable("job")
    .set({ vehicle, colour_name: colourName, colour_css: colourCss, finish, ...wayToRow(way), brief_json: JSON.stringify(brief) })
    .where("id", "=", id)
    .execute();
}
