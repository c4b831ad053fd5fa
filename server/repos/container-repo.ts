import { KEEPING, type Keeping } from "#core/models/product/container";
import type { Db, Tx } from "../db/open";

export interface Container {
  id: string;
  productId: string;
  batch: string;
  size_m3: number;
  opened_ms: number | null;
  keeping: Keeping;
  left_m3: number;
  version: number;
  closedAt_ms: number | null;
}

const toContainer = (r: {
  id: string;
  product_id: string;
  batch: string;
  size_m3: number;
  opened_ms: number | null;
  keeping: string;
  left_m3: number;
  version: number;
  closed_at_ms: number | null;
}): Container => ({
  id: r.id,
  productId: r.product_id,
  batch: r.batch,
  size_m3: r.size_m3,
  opened_ms: r.opened_ms,
  keeping: Object.hasOwn(KEEPING, r.keeping) ? (r.keeping as Keeping) : "shelf",
  left_m3: r.left_m3,
  version: r.version,
  closedAt_ms: r.closed_at_ms,
});

/** Cans that are still here. */
export async function listContainers(db: Db): Promise<Container[]> {
  const rows = await db.selectFrom("container").selectAll().where("closed_at_ms", "is", null).orderBy("created_at_ms").execute();
  return rows.map(toContainer);
}

export async function getContainer(db: Db, id: string): Promise<Container | null> {
  const row = await db.selectFrom("container").selectAll().where("id", "=", id).executeTakeFirst();
  return row ? toContainer(row) : null;
}

export async function insertContainer(db: Tx, c: Omit<Container, "version" | "closedAt_ms"> & { now_ms: number }): Promise<void> {
  await db
    .insertInto("container")
    .values({
      id: c.id,
      product_id: c.productId,
      batch: c.batch,
      size_m3: c.size_m3,
      opened_ms: c.opened_ms,
      keeping: c.keeping,
      left_m3: c.left_m3,
      version: 1,
      created_at_ms: c.now_ms,
      closed_at_ms: null,
      client_key: null,
    })
    .execute();
}

/** Changes a can upon the version that was read in the same transaction. */
export async function updateContainer(
  db: Tx,
  { id, version }: Container,
  change: { batch?: string; opened_ms?: number | null; keeping?: Keeping; left_m3?: number; closed_at_ms?: number | null },
): Promise<void> {
  await db
    .updateTable("container")
    .set({ ...change, version: version + 1 })
    .where("id", "=", id)
    .execute();
}
