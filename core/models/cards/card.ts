import type { z } from "zod";
import { requireNumber } from "../../kernel/guard";
import { GLOSS_ANGLES } from "../gloss/fresnel-gloss";
import type { cardBody } from "./card-schema";

import { CARD_CURES, CARD_ORIENTATIONS } from "./card-verdicts";

export * from "./card-verdicts";

export type CardBody = z.infer<typeof cardBody>;
export { GLOSS_ANGLES };

const LONGEST_NAME = 60;
/** What a matte card is called unless somebody names it: by its product and its mix. @param share of matting component @throws RangeError */
export const cardName = (productName: string, share: number): string =>
  `${productName} ${Math.round(100 * requireNumber("share", share, { min: 0, max: 1 }))} %`.slice(0, LONGEST_NAME);

/** Mean gloss of a card at one angle; null when it was not read. */
export function cardGloss(card: Pick<CardBody, "gloss">, angle: (typeof GLOSS_ANGLES)[number]): number | null {
  const values = card.gloss.filter((g) => g.angle === angle).map((g) => g.gloss_GU);
  return values.length ? values.reduce((a, v) => a + v, 0) / values.length : null;
}

/** In what the cards of one fit differ besides the mix: each is a reason to doubt the curve. */
export function cardDifferences(cards: readonly CardBody[]): string[] {
  const differ = (name: string, of: (c: CardBody) => string) => {
    const values = [...new Set(cards.map(of))];
    return values.length > 1 ? [`${name}: ${values.join(", ")}`] : [];
  };
  const films = cards.flatMap((c) => (c.dryFilm_m === null ? [] : [c.dryFilm_m]));
  return [
    ...differ("substrate or base", (c) => c.base || "not said"),
    ...differ("cure", (c) => CARD_CURES[c.cure]),
    ...differ("orientation", (c) => CARD_ORIENTATIONS[c.orientation]),
    ...differ("coats", (c) => String(c.coats)),
    ...(films.length > 1 && Math.max(...films) > 1.25 * Math.min(...films) ? ["film differs by more than a quarter"] : []),
  ];
}

/** What a pair of cards that differ in one thing only shows of its size: gloss with it less gloss without. */
export function shownEffects(
  cards: readonly CardBody[],
): { what: string; change_GU: number; from_GU: number; to_GU: number; from: string; to: string }[] {
  const same = (a: CardBody, b: CardBody, except: "cure" | "orientation") =>
    a.productName === b.productName &&
    a.base === b.base &&
    a.mattingShare !== null &&
    b.mattingShare !== null &&
    Math.abs(a.mattingShare - b.mattingShare) < 0.011 &&
    (except === "cure" || a.cure === b.cure) &&
    (except === "orientation" || a.orientation === b.orientation) &&
    Math.abs(a.reducer - b.reducer) < 0.011;
  const pairs = <K extends "cure" | "orientation">(key: K, from: CardBody[K], to: CardBody[K], what: string) =>
    cards.flatMap((a) =>
      cards.flatMap((b) => {
        if (a[key] !== from || b[key] !== to || !same(a, b, key)) return [];
        const [ga, gb] = [cardGloss(a, 60), cardGloss(b, 60)];
        return ga === null || gb === null ? [] : [{ what, change_GU: gb - ga, from_GU: ga, to_GU: gb, from: a.name, to: b.name }];
      }),
    );
  return [
    ...pairs("cure", "air", "forced", "forced drying"),
    ...pairs("orientation", "vertical", "horizontal", "lying instead of upright"),
  ];
}
