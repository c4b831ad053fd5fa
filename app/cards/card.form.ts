import { z } from "zod";
import { CARD_CURES, CARD_ORIENTATIONS, CARD_VERDICTS, GLOSS_VERDICTS, TEXTURE_VERDICTS } from "#core/models/cards/card";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import { optionalQuantity, wholeNumber } from "~/kit/form/fields";
import { optionalReadingsGU } from "~/kit/form/gloss-readings";
import { ROW, rowField } from "./card-row-fields";

const keys = <K extends string>(t: Record<K, string>) => Object.keys(t) as [K, ...K[]];
const text = (most: number) => z.string().trim().max(most).default("");
const rowNumbers = Array.from({ length: ROW }, (_, i) => i + 1);

/** A row of cards as typed: the mix and the gloss of each; a card without a reading was not sprayed. */
export const cardRowForm = (units: UnitPreferences) =>
  z
    .object({
      product: z.string().trim().min(1, "Say of which product the cards are").max(80),
      base: text(60),
      colour: text(40),
      side: z.enum(keys(CARD_ORIENTATIONS)),
      cure: z.enum(keys(CARD_CURES)),
    })
    .and(
      z.object(
        Object.fromEntries(
          rowNumbers.flatMap((n) => [
            [rowField("share", n), optionalQuantity("share", units, { min: 0, max: 1 })],
            [rowField("gloss", n), optionalReadingsGU],
          ]),
        ),
      ),
    )
    .transform(({ product, base, colour, side, cure, ...typed }, ctx) => {
      const cards = rowNumbers.flatMap((n) => {
        const share = typed[rowField("share", n)] as number | null;
        const gloss_GU = (typed[rowField("gloss", n)] as { gloss_GU: number }[]).map((r) => r.gloss_GU);
        if (gloss_GU.length === 0) return [];
        if (share !== null) return [{ share, gloss_GU }];
        ctx.addIssue({ code: "custom", path: [rowField("share", n)], message: "Type its mix" });
        return [];
      });
      if (cards.length === 0) ctx.addIssue({ code: "custom", path: [rowField("gloss", 1)], message: "Type a reading" });
      return { productName: product, base, colourCode: colour, orientation: side, cure, cards };
    });

/** A test card as typed; photographs travel beside it. */
export const cardForm = (units: UnitPreferences) =>
  z
    .object({
      name: z.string({ error: "Give the card a name" }).trim().min(1, "Give the card a name").max(60),
      productId: text(80),
      productName: text(80),
      mix: text(120),
      matting: optionalQuantity("share", units, { min: 0, max: 1 }),
      reducer: optionalQuantity("share", units, { min: 0, max: 1 }),
      base: text(60),
      colourCode: text(40),
      orientation: z.enum(keys(CARD_ORIENTATIONS)),
      coats: wholeNumber(1, 12),
      film: optionalQuantity("film", units, { min: 1e-6, max: 1e-3 }),
      cure: z.enum(keys(CARD_CURES)),
      place: text(60),
      gloss20: optionalReadingsGU,
      gloss60: optionalReadingsGU,
      gloss85: optionalReadingsGU,
      colour: z.enum(keys(CARD_VERDICTS)),
      glossVerdict: z.enum(keys(GLOSS_VERDICTS)),
      texture: z.enum(keys(TEXTURE_VERDICTS)),
      note: text(400),
    })
    .transform((v) => ({
      productId: v.productId,
      body: {
        name: v.name,
        productName: v.productName,
        mix: v.mix,
        mattingShare: v.matting,
        reducer: v.reducer ?? 0,
        base: v.base,
        colourCode: v.colourCode,
        orientation: v.orientation,
        coats: v.coats,
        dryFilm_m: v.film,
        cure: v.cure,
        place: v.place,
        gloss: ([20, 60, 85] as const).flatMap((angle) => v[`gloss${angle}`].map((r) => ({ angle, gloss_GU: r.gloss_GU }))),
        colour: v.colour,
        glossVerdict: v.glossVerdict,
        texture: v.texture,
        note: v.note,
      },
    }));
