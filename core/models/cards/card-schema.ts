import { z } from "zod";
import { keysOf } from "../../kernel/keys";
import { CARD_CURES, CARD_ORIENTATIONS, CARD_VERDICTS, GLOSS_VERDICTS, TEXTURE_VERDICTS } from "./card-verdicts";

const text = (most: number) => z.string().trim().max(most);
const share = z.number().min(0).max(1);

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
  /** Code of the colour below it. */
  colourCode: text(40).default(""),
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
