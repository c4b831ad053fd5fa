import { clearingPlan } from "../correction/clearing";
import { nearestPaper } from "./papers";

export interface GritChain {
  /** Papers in their order, each with the passes that clear what the one before left. */
  steps: { grit: number; passes: number }[];
  /** A paper that is coarser than the one before, or one that skips too far; null: the chain holds. */
  fault: { what: "coarser" | "skips"; from: number; to: number; passes: number } | null;
  /** Finest of them, what the base lies on. */
  last: number;
}

/** More passes than these to clear the marks of the paper before, and one between is quicker. As in the correction ladder. */
const MOST_PASSES = 2;

/**
 * Papers below the base by the very rule of the correction ladder: each has to clear what the one before left, on a soft pad.
 * @returns null for no paper @throws RangeError for a paper outside the table
 */
export function gritChain(grits: readonly number[]): GritChain | null {
  if (grits.length === 0) return null;
  const uses = grits.map((g) => ({ grit: nearestPaper(g), backing: "soft" as const }));
  const planned = clearingPlan(uses).steps;
  const steps = grits.map((grit, i) => ({ grit, passes: planned[i]!.passes }));
  const at = (i: number, what: "coarser" | "skips") => ({ what, from: grits[i - 1]!, to: grits[i]!, passes: steps[i]!.passes });
  const coarser = grits.findIndex((g, i) => i > 0 && g < grits[i - 1]!);
  const skips = steps.findIndex((s, i) => i > 0 && s.passes > MOST_PASSES);
  const fault = coarser >= 0 ? at(coarser, "coarser") : skips >= 0 ? at(skips, "skips") : null;
  return { steps, fault, last: Math.max(...grits) };
}
