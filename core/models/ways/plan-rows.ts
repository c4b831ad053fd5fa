import type { FlowResult } from "../flow/simulate-coats";
import type { GunSettings } from "../spray/deposit";
import type { CoatWait } from "./wait-after";

export interface PlannedCoatRow {
  number: number;
  role: string;
  gun: GunSettings;
  wet_m: number;
  dry_m: number;
  u_dry_m: number;
  /** Clear there after it, with its uncertainty. */
  clear_m: number;
  u_clear_m: number;
  /** Texture after it, 1 glass … 5 heavy, and how it stands against a run, at the soonest wait before it. */
  texture: number;
  verdict: FlowResult["verdict"];
  /** Chance of a run at an edge, the film's doubt with it. */
  runChance: number;
  sagLocal_m: number;
  wait: CoatWait | null;
}

/** The coat that is likeliest to run; null where there is none. */
export const likeliestToRun = (rows: readonly PlannedCoatRow[]): PlannedCoatRow | null =>
  rows.reduce<PlannedCoatRow | null>((a, r) => (a === null || r.runChance > a.runChance ? r : a), null);
