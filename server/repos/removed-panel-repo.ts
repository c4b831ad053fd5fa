import type { Db, Tx } from "../db/open";

/** A removed panel as lists show it; its file is asked for by itself. */
export interface RemovedPanel {
  panelId: string;
  jobId: string;
  name: string;
  removedAt_ms: number;
  by: string;
}

/** Panels taken off a job whose files are kept, the last one first. */
export async function listRemovedPanels(db: Db, jobId: string): Promise<RemovedPanel[]> {
  return db
    .selectFrom("removed_panel")
    .select(["panel_id as panelId", "job_id as jobId", "name", "removed_at_ms as removedAt_ms", "by_role as by"])
    .where("job_id", "=", jobId)
    .orderBy("removed_at_ms", "desc")
    .orderBy("panel_id")
    .execute();
}

/** The file that a removed panel left; null when there is none on this job. */
export async function removedPanelFile(db: Db, jobId: string, panelId: string): Promise<string | null> {
  const row = await db
    .selectFrom("removed_panel")
    .select("bundle_json")
    .where("panel_id", "=", panelId)
    .where("job_id", "=", jobId)
    .executeTakeFirst();
  return row?.bundle_json ?? null;
}

export async function keepRemovedPanel(
  db: Tx,
  { panelId, jobId, name, removedAt_ms, by, file }: RemovedPanel & { file: string },
): Promise<void> {
  await db
    .insertInto("removed_panel")
    .values({ panel_id: panelId, job_id: jobId, name, removed_at_ms: removedAt_ms, by_role: by, bundle_json: file })
    .execute();
}

/** Lets a removed panel's file go. @returns false when there was none */
export async function forgetRemovedPanel(db: Tx, panelId: string): Promise<boolean> {
  const { numDeletedRows } = await db.deleteFrom("removed_panel").where("panel_id", "=", panelId).executeTakeFirst();
  return numDeletedRows > 0n;
}

/** Lets the files of all panels that were taken off a job go. */
export async function forgetRemovedPanelsOf(db: Tx, jobId: string): Promise<void> {
  await db.deleteFrom("removed_panel").where("job_id", "=", jobId).execute();
}
