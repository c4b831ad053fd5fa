import type { Point } from "../panel/geometry";
import type { PanelState } from "./derive-panel";

export interface ClearSummary {
  count: number;
  mean_m: number;
  /** Mean of the spots' own standard uncertainties: how well one spot is known, not how well the mean is. */
  u_spot_m: number;
  thinnest: { name: string; at: Point; clear_m: number; u_m: number };
  inferred: boolean;
}

/** Clear over the spots that tell it; null when none does. */
export function clearSummary(state: Pick<PanelState, "spots">): ClearSummary | null {
  const clears = state.spots.flatMap((s) => (s.clear ? [{ name: s.name, at: s.at, ...s.clear }] : []));
  const [first] = clears;
  if (!first) return null;
  const thinnest = clears.reduce((a, s) => (s.clear_m < a.clear_m ? s : a), first);
  return {
    count: clears.length,
    mean_m: clears.reduce((a, s) => a + s.clear_m, 0) / clears.length,
    u_spot_m: clears.reduce((a, s) => a + s.u_m, 0) / clears.length,
    thinnest: { name: thinnest.name, at: thinnest.at, clear_m: thinnest.clear_m, u_m: thinnest.u_m },
    inferred: clears.every((s) => s.how === "inferred"),
  };
}

/** What really came off at spots read after clear and again after sanding; the gauge's own error is common and drops out. May be negative. */
export function removedAtSpots(state: Pick<PanelState, "spots">): { name: string; removal_m: number; u_m: number }[] {
  return state.spots.flatMap((s) => {
    const { after, recheck } = s.films;
    if (!after || !recheck) return [];
    return [{ name: s.name, removal_m: after.film.mean_m - recheck.film.mean_m, u_m: Math.hypot(after.film.uA_m, recheck.film.uA_m) }];
  });
}

/** Clear as it was read before any of it was sanded, at the spots read before and after clear; null when nothing was read again since. */
export function clearBeforeWork(state: Pick<PanelState, "spots">): { mean_m: number; u_m: number } | null {
  const both = state.spots.flatMap(({ films: { before, after, recheck } }) =>
    before && after && recheck ? [{ before: before.film, after: after.film }] : [],
  );
  if (both.length === 0) return null;
  return {
    mean_m: both.reduce((a, { before, after }) => a + after.mean_m - before.mean_m, 0) / both.length,
    u_m: both.reduce((a, { before, after }) => a + Math.hypot(before.uA_m, after.uA_m), 0) / both.length,
  };
}
