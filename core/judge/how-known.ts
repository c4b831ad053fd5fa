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

/** Clear on a panel now, over all of it: by its readings where there are any, else as its coats have it. */
export interface ClearNow {
  clear_m: number;
  u_m: number;
  how: HowKnown | "predicted";
}
interface Known {
  film: { mean: Omit<ClearNow, "how"> | null; how: HowKnown | null };
  expectedClear: Omit<ClearNow, "how"> | null;
}

/** What every page says is there now; null where neither a reading nor a coat tells of any. */
export function clearNow({ film, expectedClear }: Known): ClearNow | null {
  if (film.mean) return { ...film.mean, how: film.how ?? "inferred" };
  return expectedClear && { ...expectedClear, how: "predicted" };
}

/**
 * What is not known until somebody has measured it here. Found by simulation against truths the model does not share (docs/validation.md):
 * streaks, other edge zones, gauge bias, removal above forecast. Defaults of ours.
 */
export const UNMEASURED = {
  /** Removal against its forecast, and its further doubt, until this shop has measured removals of its own. */
  removal: { factor: 1.1, u: 0.12 },
  /** Without a foil check logged with the readings: the gauge's own limits times this, and this share of the film. */
  gaugeFactor: 1.5,
  film: 0.04,
} as const;
