import type { ServerContext } from "../context";
import { type Card, listCards } from "../repos/card-repo";
import { listProducts } from "../repos/product-repo";

/** Cards, matte products by name and their sheets' levels: what the matte mix is found from. */
export async function loadMatteShelf(ctx: ServerContext): Promise<{
  cards: Card[];
  products: string[];
  levels: Record<string, { share: number; gloss60_GU: number }[]>;
}> {
  const [cards, shelf] = await Promise.all([listCards(ctx.db), listProducts(ctx.db)]);
  const mattes = shelf.filter((p) => p.sheet.kind === "matte clear");
  const matteCards = cards.filter((c) => c.body.mattingShare !== null);
  return {
    cards: matteCards,
    // A product that is no longer on the shelf keeps its cards.
    products: [...new Set([...mattes.map((p) => p.sheet.name), ...matteCards.map((c) => c.body.productName)])],
    levels: Object.fromEntries(mattes.map((p) => [p.sheet.name, p.sheet.levels])),
  };
}
