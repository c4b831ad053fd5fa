import { type ProductKind, isColoured } from "#core/models/product/kinds";

/** What the pages call clear, of a topcoat that is the colour itself. */
export const ITSELF = "Single stage: where it says clear, this coat is meant; no base lies below it.";

/** By what a painter sees that he is through the topcoat, and what that means. */
export const throughWords = (sheet: { kind: ProductKind }): { sign: string; stop: string; watch: string; mend: string } =>
  isColoured(sheet)
    ? {
        sign: "The undercoat shows",
        stop: "the colour is through",
        watch:
          "Its own colour is on the cloth from the first stroke and says nothing. Undercoat showing: stop, the colour is through; repaint.",
        mend: "Colour mends it, not polish.",
      }
    : {
        sign: "Colour on the cloth",
        stop: "the clear is through",
        watch: "Colour on the cloth: stop, the clear is through; repaint.",
        mend: "Base and clear mend it, not polish.",
      };
