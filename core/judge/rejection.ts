import { isFold, isInclusion } from "../models/defects/kinds";
import { type Fault, seenChance } from "../models/defects/remedies";
import type { Finish } from "../models/ways/terms";
import { OPTION_FIGURES } from "./option-figures";

const logistic = (x: number) => 1 / (1 + Math.exp(-x));

/** Chance that peel is rejected: only what stands out of the texture wanted is seen. */
export function rejectionByPeel(texture_m: number, wanted_m: number): number {
  const { middle_m, width_m } = OPTION_FIGURES.peel;
  return texture_m > wanted_m ? logistic((texture_m - wanted_m - middle_m) / width_m) : 0;
}
/** Chance that nibs are rejected, by their number. */
export const rejectionByNibs = (count: number): number => 1 - Math.exp(-OPTION_FIGURES.perNib * count);
/** Chance that a run is rejected, by how high it stands. */
export const rejectionByRun = (height_m: number): number => logistic((height_m - OPTION_FIGURES.run.middle_m) / OPTION_FIGURES.run.width_m);

/** Chance that a fault is rejected as it lies there, whatever it is: options and verdict ask this one. @throws RangeError */
export function rejectionByFault(fault: Fault, finish: Finish): number {
  if (isInclusion(fault.kind)) return rejectionByNibs(fault.count);
  if (isFold(fault.kind) && fault.height_m !== null) return rejectionByRun(fault.height_m);
  return seenChance(fault, finish);
}
