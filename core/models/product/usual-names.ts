import type { UsualSheet } from "./usual-sheets";

/** What the usual sheets are called where they are chosen: for a page that needs none of their figures. */
export const USUAL_NAMES: Record<UsualSheet, string> = {
  high: "2:1, high solids",
  four: "4:1, medium solids",
  one: "1:1, fast",
  matte: "matte, with its gloss clear",
  single: "single stage, coloured",
};
