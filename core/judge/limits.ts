import { requireNumber } from "../kernel/guard";

export { MOST_CLEAR_M, MOST_TOTAL_M, MOST_TOTAL_REBASE_M } from "../models/trade-limits";
export { UNMEASURED } from "./how-known";
export type { Verdict } from "../record/kinds";

/**
 * Every limit that the judge goes by, each with its source: one table, asked by everybody. Common practice, or a default of ours where
 * nothing is said.
 */

/**
 * Chances that a verdict may hold. The 0.5 % for cutting through is a guard, not a promise: it is too rare to have been verified by
 * simulation. Defaults of ours.
 */
export const VERDICT_LIMITS = {
  safe: { cut: 0.005, thin: 0.05 },
  caution: { cut: 0.03, thin: 0.25 },
} as const;

/** Film that must be left anywhere, and film that keeps protecting against light unless the product's sheet says otherwise. */
export const CUT_GUARD_M = 8e-6;
export const DEFAULT_FLOOR_M = 35e-6;
/** Share of the worked area that may lie below the floor. */
export const THIN_AREA_SHARE = 0.02;
/** Rim left out of the work unless told otherwise; nearer to the edge than the second a probe does not sit flat. */
export const DEFAULT_TAPE_M = 0.02;
export const LEAST_RIM_M = 0.015;
/** Fewer spots than this never give a verdict. */
export const LEAST_SPOTS = 3;

/**
 * Film differs from place to place by more than a field through a few spots can tell: streaks of the passes, a hand's waver. This share of it, one
 * place apart from the next. Default of ours, found by the same simulation.
 */
export const FILM_UNEVEN = 0.02;

/** Relative doubt of a removal nobody has chosen a ladder for: a usual ladder's own, as the map's slider takes it. */
export const USUAL_REMOVAL_DOUBT = 0.18;

/** Verdict from the two chances; every page asks this one. @throws RangeError outside 0…1 */
export function verdictOf({ cut, thin }: { cut: number; thin: number }): "safe" | "caution" | "stop" {
  requireNumber("cut", cut, { min: 0, max: 1 });
  requireNumber("thin", thin, { min: 0, max: 1 });
  const { safe, caution } = VERDICT_LIMITS;
  if (cut <= safe.cut && thin <= safe.thin) return "safe";
  if (cut <= caution.cut && thin <= caution.thin) return "caution";
  return "stop";
}

/** Strip on either side of a body line that no block goes over. Common practice. */
export const LINE_STRIP_M = 0.015;
/** Soft paper under fingertips follows the waves: it levels about half of them. A default of ours. */
export const HAND_LEVELS = 0.5;
