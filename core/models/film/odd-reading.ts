import { requireNumber, requireNumbers } from "../../kernel/guard";
import { median } from "../../kernel/stats/summary";

/** Total film that a painted part may well have: from a bare primer to several repaints. Common practice. */
export const USUAL_TOTAL_M = { least: 15e-6, most: 1e-3 } as const;
/** A reading over clear this far below what was read there before clear is not of the same place. Default of ours. */
const BELOW_BEFORE_M = 15e-6;
const MIL_M = 25.4e-6;
/** A reading further than this from the middle of its spot's readings is not of that place: beyond a gauge's scatter and a probe's wandering. Default of ours. */
const FAR = { least_m: 20e-6, share: 0.15 } as const;

/** Against other spots much more is usual: edges, several repaints. Beyond this it is asked about, with so many spots read. Defaults of ours. */
const FAR_OFF = { least_m: 60e-6, share: 0.5 } as const;
const ENOUGH_OTHERS = 3;
const isBeyond = (x: number, middle: number, { least_m, share }: { least_m: number; share: number }) =>
  Math.abs(x - middle) > Math.max(least_m, share * Math.abs(middle));

/** Which readings of one place lie far from their middle; of two that disagree both do. @throws RangeError for none, or one that is no number */
export function farReadings(readings_m: readonly number[]): boolean[] {
  const middle = median(requireNumbers("readings_m", readings_m));
  return readings_m.map((x) => isBeyond(x, middle, FAR));
}

/** Why a typed reading is asked about before it is stored; `instead_m`: what the same figure is in the other unit. */
export type OddReading =
  | { why: "other unit"; instead_m: number }
  | { why: "too much" | "too little" | "nothing" }
  | { why: "less than before"; before_m: number }
  /** Far from what else was read at its spot, or at the other spots: about so much. */
  | { why: "far from its spot" | "far from the others"; others_m: number };

/**
 * Whether a typed total film wants a second look: far from what a panel can hold, perhaps typed in the other unit, or less than there was below
 * the clear. Null: nothing odd. It is a question, never a refusal.
 * @param before_m what was read below clear at that spot, for a reading over clear
 * @param spot_m what else was read at that spot on the same surface @param others_m what was read at the other spots, one figure a spot
 * @throws RangeError for a film that is no number
 * @example oddReading(480e-6, { unit: "µm", spot_m: [131e-6, 129e-6] }) // { why: "far from its spot", others_m: 130e-6 }
 */
export function oddReading(
  total_m: number,
  {
    unit,
    before_m = null,
    spot_m = [],
    others_m = [],
  }: { unit: "µm" | "mil"; before_m?: number | null; spot_m?: readonly number[]; others_m?: readonly number[] },
): OddReading | null {
  const film = requireNumber("total_m", total_m);
  const { least, most } = USUAL_TOTAL_M;
  const usual = (m: number) => m >= least && m <= most;
  if (film < 0) return null; // refused at its field, not asked about
  if (film === 0) return { why: "nothing" };
  const instead_m = unit === "mil" ? (film / MIL_M) * 1e-6 : (film / 1e-6) * MIL_M;
  if (!usual(film)) return usual(instead_m) ? { why: "other unit", instead_m } : { why: film > most ? "too much" : "too little" };
  if (before_m !== null && film < before_m - BELOW_BEFORE_M) return { why: "less than before", before_m };
  if (spot_m.length > 0) {
    const middle = median(spot_m);
    return isBeyond(film, middle, FAR) ? { why: "far from its spot", others_m: middle } : null;
  }
  const middle = others_m.length >= ENOUGH_OTHERS ? median(others_m) : null;
  return middle !== null && isBeyond(film, middle, FAR_OFF) ? { why: "far from the others", others_m: middle } : null;
}
