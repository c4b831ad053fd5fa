import { requireNumber } from "../../kernel/guard";
import { GRAIN_M, type Grit } from "../correction/abrasives";

/** The standard paper nearest to a number. @throws RangeError outside 240 … 5000 */
export function nearestPaper(grit: number): Grit {
  requireNumber("grit", grit, { min: 240, max: 5000 });
  return (Object.keys(GRAIN_M) as Grit[]).reduce((a, g) =>
    Math.abs(Number(g.slice(1)) - grit) < Math.abs(Number(a.slice(1)) - grit) ? g : a,
  );
}

/** What a usual base is sprayed on: P600. Common practice. */
const USUAL_PAPER: Grit = "P600";

/**
 * How much rougher or flatter a base lies over its last paper than over P600: with the square root of the grain, for the base fills half of what it
 * finds. A default of ours. @throws RangeError @example P800: 0.92, P1200: 0.77
 */
export const baseRoughness = (lastPaper: number): number => Math.sqrt(GRAIN_M[nearestPaper(lastPaper)][0] / GRAIN_M[USUAL_PAPER][0]);
