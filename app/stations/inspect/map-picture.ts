import { cellRisk } from "#core/judge/cell-risk";
import type { PanelMap } from "#core/judge/panel-map";

interface Removal {
  removal_m: number;
  u_removal_m: number;
  floor_m: number;
}

/** Chance at a cell to end below the floor after a removal; none where nothing is worked. */
export function riskAt(map: PanelMap, cell: number, removal: Removal): number {
  const multiplier = map.share[cell]!;
  return multiplier > 0 ? cellRisk({ clear_m: map.mean_m[cell]!, u_clear_m: map.sd_m[cell]!, multiplier, ...removal }) : 0;
}

/** The same at every cell. */
export const risksOf = (map: PanelMap, removal: Removal): Float64Array => map.mean_m.map((_, i) => riskAt(map, i, removal));
