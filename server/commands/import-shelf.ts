import { anySheet } from "#core/models/product/sheet-schema";
import type { ServerContext } from "../context";
import { run } from "./run";
import type { Outcome } from "../interchange/readings-csv";
import { newSheets, shelfFromCsv, shelfFromJson } from "../interchange/shelf-file";
import { insertProduct, insertRevision, listShelf } from "../repos/product-repo";

/** Puts a file's products on the shelf in one transaction: new ones are added, changed ones get a new revision. */
export async function importShelf(ctx: ServerContext, text: string): Promise<Outcome<{ added: number; revised: number; same: number }>> {
  const read = /^\uFEFF?\s*[{[]/.test(text) ? shelfFromJson(text) : shelfFromCsv(text);
  if (!read.ok) return read;
  const result = await run(ctx, null, async ({ db, now_ms, tell }) => {
    const changes = newSheets(await listShelf(db), read.value);
    for (const { id, sheet } of changes) {
      const productId = id ?? ctx.newId();
      if (id === null) await insertProduct(db, { id: productId, now_ms });
      await insertRevision(db, { id: ctx.newId(), productId, sheet: anySheet.parse(sheet), now_ms });
    }
    tell({ topic: "product", id: "shelf" });
    const added = changes.filter((c) => c.id === null).length;
    return { added, revised: changes.length - added, same: read.value.length - changes.length };
  });
  return { ok: true, value: result };
}
