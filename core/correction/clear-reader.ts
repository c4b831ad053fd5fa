import { FilmField } from "../film/film-field";
import { LEAST_SPOTS } from "../film/verdict";
import type { PanelBrief, PanelState } from "../ledger/derive-panel";
import type { Point } from "../panel/geometry";

export interface ClearThere {
  clear_m: number;
  u_clear_m: number;
}

/**
 * Clear at places of a panel: from the field when there are before-readings, else the mean of what the spots say, with the widest of their
 * doubts. Null when no spot tells it.
 */
export function clearReader(brief: PanelBrief, state: PanelState): ((places: readonly Point[]) => ClearThere[]) | null {
  const after = state.observations.filter((o) => o.layer === "after").length;
  if (state.hasBefore && after >= LEAST_SPOTS) {
    const field = new FilmField(
      state.observations,
      brief.shape.outline,
      { sameGaugeCorrelation: state.sessions.correlation, relocation_m: state.sessions.relocation_m },
      { bodyLines: brief.shape.bodyLines },
    );
    return (places) => {
      const { mean_m, sd_m } = field.predict(places);
      return places.map((_, i) => ({ clear_m: mean_m[i]!, u_clear_m: sd_m[i]! }));
    };
  }
  const clears = state.spots.flatMap((s) => (s.clear ? [s.clear] : []));
  if (clears.length === 0) return null;
  const everywhere = {
    clear_m: clears.reduce((a, c) => a + c.clear_m, 0) / clears.length,
    u_clear_m: Math.max(...clears.map((c) => c.u_m)),
  };
  return (places) => places.map(() => everywhere);
}
