import { inRegion } from "../kernel/geometry/region";
import { regionOfPlan } from "./builds";
import type { PanelFacts } from "./derive-panel";
import type { FilmRecord } from "./film-record";

/**
 * What really came off at spots read after clear and again after sanding, of the newest build, where the plan in force went; the gauge's own error is
 * common and drops out. May be negative.
 */
export function removedAtSpots(
  state: Pick<FilmRecord, "spots"> & Pick<PanelFacts, "plan">,
): { name: string; removal_m: number; u_m: number }[] {
  const region = state.plan && regionOfPlan(state.plan.body);
  return state.spots.flatMap((s) => {
    const { after, recheck } = s.films;
    if (!after || !recheck || after.scattered || recheck.scattered || !inRegion(s.at, region)) return [];
    return [{ name: s.name, removal_m: after.film.mean_m - recheck.film.mean_m, u_m: Math.hypot(after.film.uA_m, recheck.film.uA_m) }];
  });
}
