import { CARD_CURES, CARD_ORIENTATIONS, CARD_VERDICTS, type CardBody, GLOSS_VERDICTS, TEXTURE_VERDICTS } from "#core/models/cards/card";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import type { ShownField } from "~/kit/form/answer";
import { initial } from "~/kit/form/initial";

/** What of a card its form shows, field by field. */
export const cardTexts = (c: CardBody, units: UnitPreferences) => ({
  name: c.name,
  mix: c.mix,
  matting: initial("share", c.mattingShare, units),
  reducer: initial("share", c.reducer, units),
  base: c.base,
  colourCode: c.colourCode,
  orientation: c.orientation as string,
  coats: String(c.coats),
  film: initial("film", c.dryFilm_m, units),
  cure: c.cure as string,
  place: c.place,
  gloss20: glossText(c, 20),
  gloss60: glossText(c, 60),
  gloss85: glossText(c, 85),
  colour: c.colour as string,
  glossVerdict: c.glossVerdict as string,
  texture: c.texture as string,
  note: c.note,
});
const glossText = (c: CardBody, angle: CardBody["gloss"][number]["angle"]): string =>
  c.gloss
    .filter((g) => g.angle === angle)
    .map((g) => g.gloss_GU)
    .join(" ");

/** The same of the card as another window has corrected it, its choices in words. */
export const cardShown = (there: CardBody, units: UnitPreferences): Record<string, ShownField> => ({
  ...cardTexts(there, units),
  orientation: { value: there.orientation, said: CARD_ORIENTATIONS[there.orientation] },
  cure: { value: there.cure, said: CARD_CURES[there.cure] },
  colour: { value: there.colour, said: CARD_VERDICTS[there.colour] },
  glossVerdict: { value: there.glossVerdict, said: GLOSS_VERDICTS[there.glossVerdict] },
  texture: { value: there.texture, said: TEXTURE_VERDICTS[there.texture] },
});
