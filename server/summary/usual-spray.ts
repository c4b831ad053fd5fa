import { passTime } from "#core/models/mix/pots";
import type { PanelFacts } from "#core/panel/derive-panel";
import { polygonArea } from "#core/kernel/geometry/geometry";
import { SPRAY } from "#core/models/spray/constants";
import { USUAL_GUN } from "#core/models/spray/usual-gun";
import type { Panel } from "../repos/panel-repo";

/** Edges first, a look along the wet edge, walking round: beside the passes themselves. Common practice. */
const HANDLING_S = 120;
const HALF_MINUTE_S = 30;

/** One coat's time: the mean of those that were started and stopped, else the area at a usual hand, to whole half minutes. */
export function usualSpray_s(panel: Pick<Panel, "shape">, state: Pick<PanelFacts, "coats">): number {
  const timed = state.coats.flatMap(({ entry }) =>
    entry.body.duration_s !== null && entry.body.duration_s > 0 ? [entry.body.duration_s] : [],
  );
  if (timed.length > 0) return timed.reduce((a, t) => a + t, 0) / timed.length;
  const gun = state.coats.at(-1)?.entry.body.settings ?? { ...USUAL_GUN, fan_m: null };
  const time_s = passTime({
    area_m2: polygonArea(panel.shape.outline),
    fan_m: gun.fan_m ?? (SPRAY.fanRef_m * gun.distance_m) / SPRAY.distanceRef_m,
    overlap: gun.overlap,
    handSpeed_m_s: gun.handSpeed_m_s,
  });
  return Math.ceil((HANDLING_S + time_s) / HALF_MINUTE_S) * HALF_MINUTE_S;
}
