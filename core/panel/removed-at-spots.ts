import type { FilmRecord } from "./film-record";

/** What really came off at spots read after clear and again after sanding, of the newest build; the gauge's own error is common and drops out. May be negative. */
export function removedAtSpots(state: Pick<FilmRecord, "spots">): { name: string; removal_m: number; u_m: number }[] {
  return state.spots.flatMap((s) => {
    const { after, recheck } = s.films;
    if (!after || !recheck) return [];
    return [{ name: s.name, removal_m: after.film.mean_m - recheck.film.mean_m, u_m: Math.hypot(after.film.uA_m, recheck.film.uA_m) }];
  });
}
