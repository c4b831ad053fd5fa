import { type AnySheet, type ProductSheet, isClear, isCoat } from "#core/models/product/sheet";
import { anySheet } from "#core/models/product/sheet-schema";
import type { Db, Tx } from "../db/open";

export interface ShelfItem<S extends AnySheet = AnySheet> {
  id: string;
  revisionId: string;
  revision: number;
  sheet: S;
}
/** What is sprayed as a coat. */
export type Product = ShelfItem<ProductSheet>;

const columns = ["r.product_id", "r.id", "r.revision", "r.sheet_json"] as const;
const toItem = (row: { product_id: string; id: string; revision: number; sheet_json: string }): ShelfItem => ({
  id: row.product_id,
  revisionId: row.id,
  revision: row.revision,
  sheet: anySheet.parse(JSON.parse(row.sheet_json)),
});

const isProduct = (item: ShelfItem): item is Product => isCoat(item.sheet);

/** Newest revision of every coat on the shelf, by name. */
export async function listProducts(db: Db): Promise<Product[]> {
  return (await listShelf(db)).filter(isProduct);
}

/** Newest revision of every clear: what a panel is planned with. */
export async function listClears(db: Db): Promise<Product[]> {
  return (await listProducts(db)).filter((p) => isClear(p.sheet));
}

/** Newest revision of everything on the shelf, by name. */
export async function listShelf(db: Db): Promise<ShelfItem[]> {
  const rows = await db
    .selectFrom("product_revision as r")
    .innerJoin("product as p", "p.id", "r.product_id")
    .select(columns)
    .where("p.archived_at_ms", "is", null)
    .where("r.revision", "=", (eb) =>
      eb
        .selectFrom("product_revision as n")
        .whereRef("n.product_id", "=", "r.product_id")
        .select((e) => e.fn.max("n.revision").as("newest")),
    )
    .execute();
  return rows.map(toItem).sort((a, b) => a.sheet.name.localeCompare(b.sheet.name));
}

/** One revision: what a panel was planned with, also when the sheet has changed since. */
export async function getProductRevision(db: Db, revisionId: string): Promise<Product | null> {
  const row = await db.selectFrom("product_revision as r").select(columns).where("r.id", "=", revisionId).executeTakeFirst();
  const item = row && toItem(row);
  return item && isProduct(item) ? item : null;
}

/** What the shelf holds of a product now, put away or not; null when there is none. */
export async function newestRevision(db: Db, productId: string): Promise<ShelfItem | null> {
  const row = await db
    .selectFrom("product_revision as r")
    .select(columns)
    .where("r.product_id", "=", productId)
    .orderBy("r.revision", "desc")
    .limit(1)
    .executeTakeFirst();
  return row ? toItem(row) : null;
}

export async function hasProduct(db: Db, id: string): Promise<boolean> {
  return (await db.selectFrom("product").select("id").where("id", "=", id).executeTakeFirst()) !== undefined;
}

export async function insertProduct(db: Tx, product: { id: string; now_ms: number }): Promise<void> {
  await db.insertInto("product").values({ id: product.id, created_at_ms: product.now_ms, archived_at_ms: null }).execute();
}

/** Adds a revision; an earlier one is never changed. Returns its number. */
export async function insertRevision(db: Tx, input: { id: string; productId: string; sheet: AnySheet; now_ms: number }): Promise<number> {
  const last = await db
    .selectFrom("product_revision")
    .select((e) => e.fn.max("revision").as("newest"))
    .where("product_id", "=", input.productId)
    .executeTakeFirst();
  const revision = Number(last?.newest ?? 0) + 1;
  await db
    .insertInto("product_revision")
    .values({ id: input.id, product_id: input.productId, revision, sheet_json: JSON.stringify(input.sheet), created_at_ms: input.now_ms })
    .execute();
  return revision;
}

export async function setProductArchived(db: Tx, id: string, archivedAt_ms: number | null): Promise<boolean> {
  const { numUpdatedRows } = await db.updateTable("product").set({ archived_at_ms: archivedAt_ms }).where("id", "=", id).executeTakeFirst();
  return numUpdatedRows > 0n;
}
