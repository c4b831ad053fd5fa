import { readOnce } from "./read-once";
import { type AnySheet, type ProductSheet, isTopcoat, isCoat } from "#core/models/product/sheet";
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
const readSheet = readOnce(anySheet);
const toItem = (row: { product_id: string; id: string; revision: number; sheet_json: string }): ShelfItem => ({
  id: row.product_id,
  revisionId: row.id,
  revision: row.revision,
  sheet: readSheet(row.sheet_json),
});

const isProduct = (item: ShelfItem): item is Product => isCoat(item.sheet);

/** Newest revision of every coat on the shelf, by name. */
export async function listProducts(db: Db): Promise<Product[]> {
  return (await listShelf(db)).filter(isProduct);
}

/** Newest revision of every topcoat: what a panel is planned with. */
export async function listClears(db: Db): Promise<Product[]> {
  return (await listProducts(db)).filter((p) => isTopcoat(p.sheet));
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
  const items: ShelfItem[] = [];
  for (const [i, row] of rows.entries()) {
    if (i > 0 && i % BREATH === 0) await new Promise<void>((done) => setImmediate(done)); // a large shelf holds nobody else up
    items.push(toItem(row));
  }
  const byName = new Intl.Collator();
  return items.sort((a, b) => byName.compare(a.sheet.name, b.sheet.name));
}
const BREATH = 100;

/** One revision: what a panel was planned with, also when the sheet has changed since. */
export async function getProductRevision(db: Db, revisionId: string): Promise<Product | null> {
  const row = await db.selectFrom("product_revision as r").select(columns).where("r.id", "=", revisionId).executeTakeFirst();
  const item = row && toItem(row);
  return item && isProduct(item) ? item : null;
}

/** Changes with anything that is put on the shelf, revised, put away or taken back. */
export async function shelfVersion(db: Db): Promise<string> {
  const row = await db
    .selectFrom("product as p")
    .leftJoin("product_revision as r", "r.product_id", "p.id")
    .select((e) => [e.fn.countAll<number>().as("revisions"), e.fn.sum<number>("p.archived_at_ms").as("away")])
    .executeTakeFirst();
  return `${row?.revisions ?? 0} ${row?.away ?? 0}`;
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

/** So many rows are written at a time: below SQLite's limit of bound values. */
const CHUNK = 500;

export async function insertProducts(db: Tx, products: readonly { id: string; now_ms: number }[]): Promise<void> {
  for (let i = 0; i < products.length; i += CHUNK)
    await db
      .insertInto("product")
      .values(products.slice(i, i + CHUNK).map((p) => ({ id: p.id, created_at_ms: p.now_ms, archived_at_ms: null })))
      .execute();
}
export const insertProduct = (db: Tx, product: { id: string; now_ms: number }): Promise<void> => insertProducts(db, [product]);

interface NewRevision {
  id: string;
  productId: string;
  sheet: AnySheet;
  now_ms: number;
}

/** Adds revisions, each of another product; an earlier one is never changed. @returns their numbers */
export async function insertRevisions(db: Tx, inputs: readonly NewRevision[]): Promise<number[]> {
  const numbers: number[] = [];
  for (let i = 0; i < inputs.length; i += CHUNK) {
    const part = inputs.slice(i, i + CHUNK);
    const newest = await db
      .selectFrom("product_revision")
      .select(["product_id", (e) => e.fn.max("revision").as("newest")])
      .where(
        "product_id",
        "in",
        part.map((p) => p.productId),
      )
      .groupBy("product_id")
      .execute();
    const last = new Map(newest.map((r) => [r.product_id, Number(r.newest)]));
    const rows = part.map((p) => ({ ...p, revision: (last.get(p.productId) ?? 0) + 1 }));
    await db
      .insertInto("product_revision")
      .values(
        rows.map(({ id, productId, revision, sheet, now_ms }) => ({
          id,
          product_id: productId,
          revision,
          sheet_json: JSON.stringify(sheet),
          created_at_ms: now_ms,
        })),
      )
      .execute();
    numbers.push(...rows.map((r) => r.revision));
  }
  return numbers;
}
/** The same of one product. @returns its number */
export const insertRevision = async (db: Tx, input: NewRevision): Promise<number> => (await insertRevisions(db, [input]))[0]!;

export async function setProductArchived(db: Tx, id: string, archivedAt_ms: number | null): Promise<boolean> {
  const { numUpdatedRows } = await db.updateTable("product").set({ archived_at_ms: archivedAt_ms }).where("id", "=", id).executeTakeFirst();
  return numUpdatedRows > 0n;
}
