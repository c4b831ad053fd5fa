import { requireNumber } from "../guard";

export type Verdict = "safe" | "caution" | "stop" | "uncertain" | "none";

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
/** Share of the judged area that may lie below the floor. */
export const THIN_AREA_SHARE = 0.02;
export const DEFAULT_TAPE_M = 0.02;
/** Fewer spots than this never give a verdict. */
export const LEAST_SPOTS = 3;

/** Verdict from the two chances. @throws RangeError outside 0…1 */
export function verdictOf({ cut, thin }: { cut: number; thin: number }): "safe" | "caution" | "stop" {
  requireNumber("cut", cut, { min: 0, max: 1 });
  requireNumber("thin", thin, { min: 0, max: 1 });
  const { safe, caution } = VERDICT_LIMITS;
  if (cut <= safe.cut && thin <= safe.thin) return "safe";
  if (cut <= caution.cut && thin <= caution.thin) return "caution";
  return "stop";
}
