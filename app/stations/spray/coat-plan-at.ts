import type { FlowConditions } from "#core/models/flow/simulate-coats";
import { UNLOGGED_AIR_K } from "#core/models/trade-limits";
import { coatPlan } from "#core/models/ways/coat-plan";
import type { PlannedCoatRow } from "#core/models/ways/plan-rows";
import type { HouseWay } from "#core/models/ways/way";
import { conditionsOf } from "#core/panel/logged-setting";
import { handGun } from "#core/panel/next-coat";
import type { PanelView } from "#server/views/panel-view";

export interface WayPlan {
  rows: PlannedCoatRow[];
  /** Why there are none: the setting lies beyond the model. */
  fault: string | null;
  conditions: FlowConditions;
}

/** The coats of a way on a panel, with the gun in the hand: of the job's own way by the server, of another in the window. */
export function wayPlan({ state, job, panel, product: { sheet }, shopFactors, shopFilm }: PanelView, way: HouseWay): WayPlan {
  // Before the way's own pace for each coat.
  const { settings: gun, reducer } = handGun(state, job.way);
  const air_K = state.climate?.body.air_K ?? UNLOGGED_AIR_K;
  const conditions = conditionsOf({ sheet, facts: state, brief: panel, way }, { air_K, reducer });
  const coats = way.id === job.way.id ? panel.coatsPlanned : way.coats.length;
  try {
    return {
      rows: coatPlan(way, { sheet, conditions, gun, coats, shop: shopFactors, u_filmLog: shopFilm.u_log }),
      fault: null,
      conditions,
    };
  } catch (error) {
    if (error instanceof RangeError) return { rows: [], fault: error.message, conditions };
    throw error;
  }
}
