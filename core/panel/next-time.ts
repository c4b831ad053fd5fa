import { type DefectKind, isFold, isInclusion } from "../models/defects/kinds";
import type { Outcome } from "../record/kinds";
import type { BodyOf } from "../record/bodies";
import type { CauseId } from "../models/defects/causes";

/** One panel's coats as they were sprayed, and what came of them. */
export interface SprayedPanel {
  panelId: string;
  what: string;
  at_ms: number;
  /** The last coat. */
  coatId: string;
  productId: string;
  air_K: number | null;
  /** Of the last coat. */
  settings: BodyOf<"coat">["settings"];
  reducer: number;
  /** Wet film of the last coat by the model. */
  wet_m: number;
  /** Texture by eye, 1 glass … 5 heavy. */
  rating: number | null;
  defects: DefectKind[];
  causes: CauseId[];
  simulated: boolean;
  /** As the painter told it; null: nobody was asked. */
  told: Outcome | null;
  /** What the model says of its coats with no factor of the shop's; null where it does not reach. */
  forecast: { sagLocal_m: number; peelChance: number } | null;
}
export type Result = "good" | "ran" | "peeled" | "other";

const ROUGH: readonly DefectKind[] = ["peel", "peelFine", "drySpray", "dryTexture"];
/** A rating above this counts as peeled. Default of ours. */
const PEELED_RATING = 4;
/** Settings count for a temperature this near. Default of ours. */
const NEAR_K = 4;

/**
 * What came of a panel's coats: as it was told; else a fold before peel, peel before the rest. Inclusions say nothing of the settings.
 */
export function resultOf(p: Pick<SprayedPanel, "defects" | "rating"> & { told?: Outcome | null }): Result {
  if (p.told) return p.told === "right" ? "good" : p.told;
  if (p.defects.some(isFold)) return "ran";
  if (p.defects.some((d) => ROUGH.includes(d)) || (p.rating ?? 0) > PEELED_RATING) return "peeled";
  return p.defects.some((d) => !isInclusion(d)) ? "other" : "good";
}

/** The newest panel of the product that came out well near a temperature; without a temperature the newest of all. Null when there is none. */
export function lastGood(panels: readonly SprayedPanel[], productId: string, air_K: number | null): SprayedPanel | null {
  const good = panels.filter((p) => p.productId === productId && resultOf(p) === "good");
  const near = air_K === null ? good : good.filter((p) => p.air_K !== null && Math.abs(p.air_K - air_K) <= NEAR_K);
  return near.reduce<SprayedPanel | null>((a, p) => (a === null || p.at_ms > a.at_ms ? p : a), null);
}

/** Panels whose result was told and whose coats the model reaches: what a calibration learns from, oldest first. */
export const toldPanels = (panels: readonly SprayedPanel[]) =>
  panels.flatMap(({ told, forecast }) => (told && forecast ? [{ ...forecast, ran: told === "ran", peeled: told === "peeled" }] : []));

/** Causes that were the final word more than once, most often first. */
export function repeatedCauses(panels: readonly SprayedPanel[]): { id: CauseId; times: number }[] {
  const times = new Map<CauseId, number>();
  for (const p of panels) for (const id of p.causes) times.set(id, (times.get(id) ?? 0) + 1);
  return [...times]
    .filter(([, n]) => n > 1)
    .map(([id, n]) => ({ id, times: n }))
    .sort((a, b) => b.times - a.times || a.id.localeCompare(b.id));
}
