import { z } from "zod";
import { type PanelBrief, SUBSTRATES, type Substrate } from "#core/ledger/derive-panel";
import { SHAPE_KINDS } from "#core/panel/shapes";
import type { Db } from "../db/open";

export interface Panel extends PanelBrief {
  id: string;
  jobId: string;
  position: number;
  name: string;
  productRevisionId: string;
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
};
const toPanel = (r: PanelRow): Panel => ({
  id: r.id,
  jobId: r.job_id,
  position: r.position,
  name: r.name,
  shape: shapeJson.parse(JSON.parse(r.shape_json)),
  tilt_rad: r.tilt_rad,
  substrate: r.substrate in SUBSTRATES ? (r.substrate as Substrate) : "unknown",
  productRevisionId: r.product_revision_id,
  coatsPlanned: r.coats_planned,
});

export async function listPanels(db: Db, jobId: string): Promise<Panel[]> {
  const rows = await db.selectFrom("panel").selectAll().where("job_id", "=", jobId).orderBy("position").execute();
  return rows.map(toPanel);
}

export async function getPanel(db: Db, id: string): Promise<Panel | null> {
  const row = await db.selectFrom("panel").selectAll().where("id", "=", id).executeTakeFirst();
  return row ? toPanel(row) : null;
}

export async function findPanelByKey(db: Db, clientKey: string): Promise<Panel | null> {
  const row = await db.selectFrom("panel").selectAll().where("client_key", "=", clientKey).executeTakeFirst();
  return row ? toPanel(row) : null;
}

export async function insertPanel(db: Db, panel: Omit<Panel, "position"> & { clientKey: string | null }): Promise<Panel> {
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
      client_key: panel.clientKey,
    })
    .returningAll()
    .executeTakeFirstOrThrow();
  return toPanel(row);
}

export async function setCoatsPlanned(db: Db, id: string, coats: number): Promise<void> {
  await db.updateTable("panel").set({ coats_planned: coats }).where("id", "=", id).execute();
}
