/** How the clear at a place is known, surest first; where no gauge reads on the part, by a metal strip beside it or by the logged coats alone. */
export const SURENESS = [
  "measured",
  "measured less removal",
  "measured with coats since",
  "by its neighbours",
  "inferred",
  "by a strip beside it",
  "forecast",
] as const;
export type HowKnown = (typeof SURENESS)[number];

/** Nothing of it was measured on the part: no gauge reads there. */
export const isForetold = (how: HowKnown | null): boolean => how === "forecast" || how === "by a strip beside it";
