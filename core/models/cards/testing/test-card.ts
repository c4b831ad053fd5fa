import type { CardBody } from "../card";

/** For tests: a matte card, sprayed upright and dried in the air, with nothing unusual in it. */
export const testCard = (change: Partial<CardBody> = {}): CardBody => ({
  name: "A",
  productName: "Matte T",
  productRevisionId: null,
  mix: "",
  mattingShare: 0.75,
  reducer: 0.05,
  base: "grey",
  colourCode: "",
  orientation: "vertical",
  coats: 2,
  dryFilm_m: 50e-6,
  cure: "air",
  place: "",
  gloss: [],
  colour: "open",
  glossVerdict: "open",
  texture: "open",
  note: "",
  photoIds: [],
  ...change,
});
