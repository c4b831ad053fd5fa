import {
  CARD_CURES,
  CARD_ORIENTATIONS,
  CARD_VERDICTS,
  type CardBody,
  GLOSS_ANGLES,
  GLOSS_VERDICTS,
  TEXTURE_VERDICTS,
  cardGloss,
} from "#core/models/cards/card";
import { show, showFilm } from "#core/kernel/units/format";
import type { UnitPreferences } from "#core/kernel/units/quantities";

/** A card's figures in rows, the same for one card and for cards side by side. */
export function cardRows(c: CardBody, units: UnitPreferences): { name: string; value: string }[] {
  const gloss = GLOSS_ANGLES.flatMap((a) => {
    const g = cardGloss(c, a);
    return g === null ? [] : [`${a}°: ${g.toFixed(1)}`];
  });
  return [
    { name: "Product", value: c.productName || "–" },
    { name: "Mix", value: c.mix || "–" },
    { name: "Matting component", value: c.mattingShare === null ? "–" : `${show("share", c.mattingShare, units).text} %` },
    { name: "Reducer", value: `${show("share", c.reducer, units, 0).text} %` },
    { name: "Over", value: c.base || "–" },
    { name: "Sprayed", value: `${CARD_ORIENTATIONS[c.orientation]}, ${c.coats} ${c.coats === 1 ? "coat" : "coats"}` },
    { name: "Film, dry", value: c.dryFilm_m === null ? "–" : `${showFilm(c.dryFilm_m, units).text} ${units.film}` },
    { name: "Cure", value: CARD_CURES[c.cure] },
    { name: "Gloss, GU", value: gloss.join("  ") || "not read" },
    { name: "Colour", value: CARD_VERDICTS[c.colour] },
    { name: "Gloss to the eye", value: GLOSS_VERDICTS[c.glossVerdict] },
    { name: "Texture", value: TEXTURE_VERDICTS[c.texture] },
    { name: "Kept", value: c.place || "–" },
  ];
}
