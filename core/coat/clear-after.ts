import { filmDoubt } from "../models/spray/film-doubt";
import { coatsOf } from "../panel/coats-on";
import { MODEL_FILM, overPanel } from "../panel/shop-film";
import type { PanelFacts } from "../panel/derive-panel";
import type { Side } from "../record/kinds";

/** Clear over a panel with its doubt. */
export interface Clear {
  clear_m: number;
  u_m: number;
}
/** Clear that is there, as the film's owner has it, and how it is known. */
export interface ClearThere extends Clear {
  how: string;
}
/** Known by nothing but the coats that were logged. */
const BY_COATS_ALONE = ["predicted", "forecast"];

type Coats = Pick<PanelFacts, "coats" | "backCoats" | "predictedClear" | "expectedClear">;

/**
 * Clear of a face after coats to come. What is known by the logged coats alone errs as the coats to come do: the shop's own error is common to all of
 * them. What was read stands by itself.
 * @param now clear of the front as the film's owner has it; null: none @param ahead_m film of the coats to come @param u_log doubt of this shop's film
 */
export function clearAfter(
  facts: Coats,
  side: Side,
  { now, ahead_m, u_log = MODEL_FILM.u_log }: { now: ClearThere | null; ahead_m: readonly number[]; u_log?: number | undefined },
): Clear {
  const more_m = ahead_m.reduce((a, m) => a + m, 0);
  const there = side === "front" ? now : null;
  if (there && !BY_COATS_ALONE.includes(there.how))
    return { clear_m: there.clear_m + more_m, u_m: Math.hypot(there.u_m, filmDoubt(ahead_m, u_log)) };
  const on_m = coatsOf(facts, side)
    .filter(overPanel)
    .map((c) => c.predicted.dry_m);
  const { predictedClear, expectedClear } = side === "front" ? facts : { predictedClear: null, expectedClear: null };
  // What was sanded off since has a doubt of its own.
  const sanded2 = Math.max(0, (expectedClear?.u_m ?? 0) ** 2 - (predictedClear?.u_m ?? 0) ** 2);
  return {
    clear_m: (expectedClear?.clear_m ?? on_m.reduce((a, m) => a + m, 0)) + more_m,
    u_m: Math.hypot(filmDoubt([...on_m, ...ahead_m], u_log), Math.sqrt(sanded2)),
  };
}
