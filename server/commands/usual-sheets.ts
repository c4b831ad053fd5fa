import { USUAL_SHEETS, type UsualSheet } from "#core/models/product/usual-sheets";
import type { ServerContext } from "../context";
import { listShelf } from "../repos/product-repo";
import { saveProduct } from "./jobs";

/** Puts a usual clear with its hardener and reducer on the shelf; what stands there by that name already stays as it is. @returns the clear's name */
export async function addUsual(ctx: ServerContext, id: UsualSheet, clientKey: string | null): Promise<string> {
  const there = new Set((await listShelf(ctx.db)).map((p) => p.sheet.name));
  const { sheets } = USUAL_SHEETS[id];
  for (const [i, sheet] of sheets.entries()) {
    if (!there.has(sheet.name)) await saveProduct(ctx, sheet, null, clientKey && `${clientKey}-${i}`);
  }
  return sheets[0].name;
}
