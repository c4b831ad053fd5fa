import { type PanelBrief, SUBSTRATES, type Substrate } from "#core/panel/brief";
import { z } from "zod";
import { PART_COLOURS, type PartColour } from "#core/models/colour/job-colours";
import type { RowPlan } from "#core/models/spray/row-plan";
import { rowPlanBody } from "#core/models/spray/row-plan-body";
import { readOnce } from "./read-once";
import { SHAPE_KINDS } from "#core/kernel/geometry/shapes";
import type { Db, Tx } from "../db/open";

export interface Panel extends PanelBrief {
  id: string;
  jobId: string;
  position: number;
  name: string;
  productRevisionId: string;
  /** Its place on a vehicle, by its key. */
  place?: string | undefined;
  /** Which of its job's colours it has; absent: the first. */
  colour?: PartColour | undefined;
}

const point = z.tuple([z.number(), z.number()]);
const shapeJson = z.object({
  kind: z.enum([...SHAPE_KINDS, "own"]),
  outline: z.array(point).min(3),
  bodyLines: z.array(z.array(point)),
  sides: z.tuple([z.string(), z.string(), z.string(), z.string()]),
});
type PanelRow = {
  id: string;
  job_id: string;
  position: number;
  name: string;
  shape_json: string;
  tilt_rad: number;
  substrate: string;
  product_revision_id: string;
  coats_planned: number;
  sides: number;
  rows_json: string | null;
  place: string | null;
  colour: string | null;
};
const readShape = readOnce(shapeJson);
const readRows = readOnce(rowPlanBody);
const toPanel = (r: PanelRow): Panel => ({
  id: r.id,
  jobId: r.job_id,
  position: r.position,
  name: r.name,
  shape: readShape(r.shape_json),
  tilt_rad: r.tilt_rad,
  substrate: Object.hasOwn(SUBSTRATES, r.substrate) ? (r.substrate as Substrate) : "unknown",
  productRevisionId: r.product_revision_id,
  coatsPlanned: r.coats_planned,
  sides: r.sides === 2 ? 2 : 1,
  ...(r.rows_json === null ? {} : { rows: readRows(r.rows_json) }),
  ...(r.place === null ? {} : { place: r.place }),
  ...colourOf(r.colour),
});

const colourOf = (kept: string | null): Pick<Panel, "colour"> => {
  const colour = PART_COLOURS.find((c) => c === kept);
  return colour ? { colour } : {};
};

export async function listPanels(db: Db, jobId: string): Promise<Panel[]> {
  const rows = await db.selectFrom("panel").selectAll().where("job_id", "=", jobId).orderBy("position").execute();
  return rows.map(toPanel);
}

/** Names of the panels of some jobs, job by job. */
export async function namesOfPanels(db: Db, jobIds: readonly string[]): Promise<Map<string, { id: string; name: string }[]>> {
  const named = new Map<string, { id: string; name: string }[]>();
  if (jobIds.length === 0) return named;
  const rows = await db.selectFrom("panel").select(["id", "job_id", "name"]).where("job_id", "in", jobIds).orderBy("position").execute();
  for (const { id, job_id, name } of rows) named.set(job_id, [...(named.get(job_id) ?? []), { id, name }]);
  return named;
}

export async function getPanel(db: Db, id: string): Promise<Panel | null> {
  const row = await db.selectFrom("panel").selectAll().where("id", "=", id).executeTakeFirst();
  return row ? toPanel(row) : null;
}

export async function jobOfPanel(db: Db, id: string): Promise<string | null> {
  return (await db.selectFrom("panel").select("job_id").where("id", "=", id).executeTakeFirst())?.job_id ?? null;
}

export async function insertPanel(db: Tx, panel: Omit<Panel, "position">): Promise<Panel> {
  const last = await db
    .selectFrom("panel")
    .select((e) => e.fn.max("position").as("last"))
    .where("job_id", "=", panel.jobId)
    .executeTakeFirst();
  const row = await db
    .insertInto("panel")
    .values({
      id: panel.id,
      job_id: panel.jobId,
      position: Number(last?.last ?? 0) + 1,
      name: panel.name,
      shape_json: JSON.stringify(panel.shape),
      tilt_rad: panel.tilt_rad,
      substrate: panel.substrate,
      product_revision_id: panel.productRevisionId,
      coats_planned: panel.coatsPlanned,
      sides: panel.sides ?? 1,
      rows_json: panel.rows ? JSON.stringify(panel.rows) : null,
      place: panel.place ?? null,
      colour: panel.colour ?? null,
      client_key: null,
    })
    .returningAll()
    .executeTakeFirstOrThrow();
  return toPanel(row);
}

export async function setCoatsPlanned(db: Tx, id: string, coats: number): Promise<void> {
  await db.updateTable("panel").set({ coats_planned: coats }).where("id", "=", id).execute();
}

/** Its place on a vehicle; null: none. */
export async function setPlace(db: Tx, id: string, place: string | null): Promise<void> {
  await db.updateTable("panel").set({ place }).where("id", "=", id).execute();
}

/** Which of its job's colours it has. */
export async function setPartColour(db: Tx, id: string, colour: PartColour): Promise<void> {
  await db.updateTable("panel").set({ colour }).where("id", "=", id).execute();
}

/** The panels of a job in another order. */
export async function setPositions(db: Tx, ids: readonly string[]): Promise<void> {
  for (const [i, id] of ids.entries())
    await db
      .updateTable("panel")
      .set({ position: i + 1 })
      .where("id", "=", id)
      .execute();
}

/** Where its rows lie; null: as nobody has planned them. */
export async function setRowPlan(db: Tx, id: string, rows: RowPlan | null): Promise<void> {
  await db
    .updateTable("panel")
    .set({ rows_json: rows && JSON.stringify(rows) })
    .where("id", "=", id)
    .execute();
}

/** Everything of a panel that its form says. */
export async function setPanelBrief(db: Tx, id: string, brief: Omit<Panel, "id" | "jobId" | "position">): Promise<void> {
  await db
    .updateTable("panel")
    .set({
      name: brief.name,
      shape_json: JSON.stringify(brief.shape),
      tilt_rad: brief.tilt_rad,
      substrate: brief.substrate,
      product_revision_id: brief.productRevisionId,
      coats_planned: brief.coatsPlanned,
      sides: brief.sides ?? 1,
    })
    .where("id", "=", id)
    .execute();
}
