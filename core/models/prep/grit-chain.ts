import { GRAIN_M } from "../correction/abrasives";
import { OVER_SANDING } from "../correction/removal-plan";
import { requireNumber } from "../../kernel/guard";
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

/** Median grain of the coarse papers that filler is shaped with, m: FEPA 43-1, macrogrits (from memory). */
const COARSE_M: Readonly<Record<number, number>> = { 80: 201e-6, 100: 162e-6, 120: 125e-6, 150: 100e-6, 180: 82e-6, 220: 68e-6 };

/** Grain of a paper, of the nearest one in the tables. @throws RangeError outside 80 … 5000 */
function grainOf(grit: number): number {
  requireNumber("grit", grit, { min: 80, max: 5000 });
  if (grit >= 230) return GRAIN_M[nearestPaper(Math.max(240, grit))][0];
  const near = Object.keys(COARSE_M)
    .map(Number)
    .reduce((a, g) => (Math.abs(g - grit) < Math.abs(a - grit) ? g : a));
  return COARSE_M[near]!;
}

/**
 * Papers below the base by the very rule of the correction ladder: each has to clear what the one before left, on a soft pad.
 * @returns null for no paper @throws RangeError for a paper outside the table
 */
export function gritChain(grits: readonly number[]): GritChain | null {
  if (grits.length === 0) return null;
  const grains_m = grits.map(grainOf);
  // On one backing the marks are as the grains: a paper takes off 1.25 times its own a pass.
  const passes = (i: number) => (i === 0 ? 1 : Math.max(1, Math.ceil(grains_m[i - 1]! / ((1 + OVER_SANDING.share) * grains_m[i]!) - 1e-9)));
  const steps = grits.map((grit, i) => ({ grit, passes: passes(i) }));
  const at = (i: number, what: "coarser" | "skips") => ({ what, from: grits[i - 1]!, to: grits[i]!, passes: steps[i]!.passes });
  const coarser = grits.findIndex((g, i) => i > 0 && g < grits[i - 1]!);
  const skips = steps.findIndex((s, i) => i > 0 && s.passes > MOST_PASSES);
  const fault = coarser >= 0 ? at(coarser, "coarser") : skips >= 0 ? at(skips, "skips") : null;
  return { steps, fault, last: Math.max(...grits) };
}
