import type { HowKnown } from "#core/judge/how-known";

/** How a layer or the clear over a panel is known, said behind its figure. */
export const HOW_WORDS = {
  measured: "measured",
  "measured less removal": "measured, less what was taken off since",
  "measured with coats since": "measured, with the coats since as predicted",
  "by its neighbours": "by its neighbours",
  inferred: "inferred, not measured",
  "by a strip beside it": "by a strip beside it, not on the part",
  forecast: "by forecast alone, not measured",
  predicted: "predicted, not measured",
  told: "as told by the painter",
} as const;

/** How far the clear may be believed where it was not measured on the part. */
export const inferredWords = (how: HowKnown | null | undefined): string =>
  how === "forecast"
    ? "By forecast alone, not measured"
    : how === "by a strip beside it"
      ? "By a strip beside it"
      : "Inferred, not measured";
