import { type ContainerAge, KEEPING, containerAge, usedFirst } from "#core/models/product/container";
import type { ServerContext } from "../context";
import { type Container, getContainer, listContainers } from "../repos/container-repo";
import { listShelf } from "../repos/product-repo";

export interface CanView extends Container {
  name: string;
  kind: string;
  age: Omit<ContainerAge, "keepsUntil_ms">;
  /** Days that it keeps once it is open: by its sheet, else by how it is kept. */
  keeps_d: number;
}

/** Cans of the shop in the order in which to use them; each says how it stands now. */
export async function loadCans(ctx: ServerContext): Promise<CanView[]> {
  const [cans, shelf] = await Promise.all([listContainers(ctx.db), listShelf(ctx.db)]);
  const products = new Map(shelf.map((p) => [p.id, p.sheet]));
  const now_ms = ctx.now_ms();
  return usedFirst(
    cans.map((c) => ({ ...c, age: containerAge({ ...c, keepsDays: products.get(c.productId)?.keepsDays ?? null }, now_ms) })),
  ).map(({ age, ...c }) => ({
    ...c,
    name: products.get(c.productId)?.name ?? "not on the shelf",
    kind: products.get(c.productId)?.kind ?? "",
    keeps_d: products.get(c.productId)?.keepsDays ?? KEEPING[c.keeping].days,
    age: { daysLeft: Number.isFinite(age.daysLeft) ? age.daysLeft : 1e9, state: age.state, words: age.words },
  }));
}

/** What a can's page is made from; of a new can only the shelf. Null where it is not there. */
export async function loadCanPage(ctx: ServerContext, canId: string | null) {
  const shelf = await listShelf(ctx.db);
  const products = shelf.map(({ id, sheet }) => ({ id, name: sheet.name, kind: sheet.kind, keepsDays: sheet.keepsDays }));
  if (canId === null) return { can: null, products };
  const can = await getContainer(ctx.db, canId);
  if (!can) return null;
  const product = products.find((p) => p.id === can.productId);
  const { state, words } = containerAge({ ...can, keepsDays: product?.keepsDays ?? null }, ctx.now_ms());
  return { can: { ...can, name: product?.name ?? "unknown product", state, words }, products };
}
