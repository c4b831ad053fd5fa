import { z } from "zod";
import { GLOSS_ANGLES } from "../gloss/fresnel-gloss";

const text = (most: number) => z.string().trim().max(most);
const share = z.number().min(0).max(1);

/** How a card dried: what moves matte gloss most after the mix itself. */
export const CARD_CURES = { air: "air-dried", forced: "forced, baked" } as const;
export const CARD_ORIENTATIONS = { vertical: "upright", horizontal: "lying" } as const;
export const CARD_VERDICTS = { match: "match", lighter: "lighter", darker: "darker", off: "off", open: "not judged" } as const;
export const TEXTURE_VERDICTS = { match: "match", smoother: "smoother", rougher: "rougher", open: "not judged" } as const;
export const GLOSS_VERDICTS = { match: "match", brighter: "brighter", duller: "duller", open: "not judged" } as const;

const keysOf = <K extends string>(table: Record<K, string>) => Object.keys(table) as [K, ...K[]];

export const glossReading = z.object({
  angle: z.union([z.literal(20), z.literal(60), z.literal(85)]),
  gloss_GU: z.number().min(0, "Gloss cannot be below zero").max(200, "Above 200 GU is outside the scale"),
});

/** A sprayed test card: what was sprayed how, and how it came out. A product's figures are kept with it as they were. */
export const cardBody = z.object({
  name: text(60).min(1, "Give the card a name"),
  productName: text(80),
  productRevisionId: z.string().nullable(),
  mix: text(120),
  /** Share of matting component; null for a card that is not about matte. */
  mattingShare: share.nullable(),
  reducer: share,
  base: text(60),
  orientation: z.enum(keysOf(CARD_ORIENTATIONS)),
  coats: z.int().min(1).max(12),
  dryFilm_m: z.number().positive().max(1e-3).nullable(),
  cure: z.enum(keysOf(CARD_CURES)),
  place: text(60),
  gloss: z.array(glossReading).max(30),
  colour: z.enum(keysOf(CARD_VERDICTS)),
  glossVerdict: z.enum(keysOf(GLOSS_VERDICTS)),
  texture: z.enum(keysOf(TEXTURE_VERDICTS)),
  note: text(400),
  photoIds: z.array(z.string()).max(8),
});
export type CardBody = z.infer<typeof cardBody>;
export { GLOSS_ANGLES };

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
export function shownEffects(cards: readonly CardBody[]): { what: string; change_GU: number; from: string; to: string }[] {
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
        return ga === null || gb === null ? [] : [{ what, change_GU: gb - ga, from: a.name, to: b.name }];
      }),
    );
  return [
    ...pairs("cure", "air", "forced", "forced drying"),
    ...pairs("orientation", "vertical", "horizontal", "lying instead of upright"),
  ];
}
