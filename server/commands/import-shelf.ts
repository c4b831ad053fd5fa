import { requireRight } from "../access/actor";
import type { AnySheet } from "#core/models/product/sheet";
import type { ServerContext } from "../context";
import { run } from "./run";
import type { Outcome } from "../interchange/readings-csv";
import { newSheets } from "../interchange/shelf-file";
import { insertProducts, insertRevisions, listShelf, shelfVersion } from "../repos/product-repo";

/** Puts a file's products on the shelf in one transaction: new ones are added, changed ones get a new revision. */
export async function importShelf(
  ctx: ServerContext,
  read: Outcome<AnySheet[]>,
): Promise<Outcome<{ added: number; revised: number; same: number }>> {
  requireRight(ctx, "shop");
  if (!read.ok) return read;
  // Compared before the shelf is held; only where somebody changed it meanwhile, once more while it is.
  const seen = await shelfVersion(ctx.db);
  const compared = newSheets(await listShelf(ctx.db), read.value);
  const result = await run(ctx, null, async ({ db, now_ms, tell }) => {
    const changes = (await shelfVersion(db)) === seen ? compared : newSheets(await listShelf(db), read.value);
    const made = changes.map(({ id, sheet }) => ({ isNew: id === null, productId: id ?? ctx.newId(), id: ctx.newId(), sheet, now_ms }));
    await insertProducts(
      db,
      made.filter((m) => m.isNew).map((m) => ({ id: m.productId, now_ms })),
    );
    await insertRevisions(db, made);
    tell({ topic: "product", id: "shelf" });
    const added = changes.filter((c) => c.id === null).length;
    return { added, revised: changes.length - added, same: read.value.length - changes.length };
  });
  return { ok: true, value: result };
}
