import type { FlowCoat, FlowConditions, FlowResult } from "../flow/simulate-coats";
import type { GunSettings } from "../spray/deposit";
import type { CoatZone } from "./terms";
import type { CoatWait } from "./wait-after";

/** A coat of a way, as it would come out. */
export interface PlannedCoatRow {
  number: number;
  role: string;
  zone: CoatZone;
  /** The gun as this coat wants it, and the reducer in what goes through it. */
  gun: GunSettings;
  reducer: number;
  /** What the flow model was asked: what it is sprayed under, and the wet coats it goes on with itself as the last. */
  conditions: FlowConditions;
  build: readonly FlowCoat[];
  /** Film as it lands and dry; dry over the panel: none where only a place of it is sprayed. */
  wet_m: number;
  dry_m: number;
  u_dry_m: number;
  /** Clear that the plan's coats have laid up to it, what was sanded off between them taken off, with its uncertainty. */
  clear_m: number;
  u_clear_m: number;
  /** Texture after it, 1 glass … 5 heavy, and how it stands against a run, at the soonest wait before it. */
  texture: number;
  verdict: FlowResult["verdict"];
  /** Chance of a run at an edge, the film's doubt with it. */
  runChance: number;
  sagLocal_m: number;
  /** The wait after it; null after the last. */
  wait: CoatWait | null;
}

/** The coat that is likeliest to run; null where there is none. */
export const likeliestToRun = <R extends Pick<PlannedCoatRow, "runChance">>(rows: readonly R[]): R | null =>
  rows.reduce<R | null>((a, r) => (a === null || r.runChance > a.runChance ? r : a), null);
