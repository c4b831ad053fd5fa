import type { Allowance, Risk } from "./film-judge";
import { verdictOf } from "./limits";

/** Share of draws that allow less than a removal: the chance that it goes wrong. @param sorted ascending */
export function chanceAt(sorted: Float64Array, removal_m: number): number {
  let low = 0;
  let high = sorted.length;
  while (low < high) {
    const mid = (low + high) >> 1;
    if (sorted[mid]! < removal_m) low = mid + 1;
    else high = mid;
  }
  return sorted.length ? low / sorted.length : NaN;
}

/** Chances of a removal by an allowance, and the verdict: what a slider shows. */
export function riskOf(
  allowance: Pick<Allowance, "cut_m" | "thin_m">,
  removal_m: number,
): Pick<Risk, "verdict" | "cutChance" | "thinChance"> {
  const cutChance = chanceAt(allowance.cut_m, removal_m);
  const thinChance = chanceAt(allowance.thin_m, removal_m);
  return { verdict: verdictOf({ cut: cutChance, thin: thinChance }), cutChance, thinChance };
}
