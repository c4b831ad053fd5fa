import { cardName } from "#core/models/cards/card";
import type { Card } from "#server/repos/card-repo";

/** What another page asks of a card. */
export type Asked = Partial<Pick<Card["body"], "name" | "productName" | "base" | "colourCode" | "orientation" | "cure" | "mattingShare">>;

export const NONE: Asked = {};

/** A card that another page proposes: what of it is given in the address. */
export function askedFor(search: URLSearchParams): Asked {
  const share = Number(search.get("share") ?? NaN);
  const productName = search.get("product")?.slice(0, 80);
  if (!productName || !(share >= 0 && share <= 1)) return NONE;
  return {
    productName,
    mattingShare: share,
    name: cardName(productName, share),
    base: search.get("base")?.slice(0, 60) ?? "",
    colourCode: search.get("colour")?.slice(0, 40) ?? "",
    orientation: search.get("side") === "horizontal" ? "horizontal" : "vertical",
    cure: search.get("cure") === "forced" ? "forced" : "air",
  };
}

/** What a row of cards has in common: product, base, how it was sprayed and cured, where it hangs. What was read is each card's own. */
export function sameAgain(card: Card | null) {
  if (!card) return null;
  const { productName, productRevisionId, base, colourCode, orientation, coats, cure, place, dryFilm_m } = card.body;
  return { number: card.number, body: { productName, productRevisionId, base, colourCode, orientation, coats, cure, place, dryFilm_m } };
}
