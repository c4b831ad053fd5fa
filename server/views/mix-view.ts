import { TEXTURE_LIMITS } from "#core/models/flow/constants";
import { type HardenerToday, hardenersToday } from "#core/models/flow/hardener-today";
import type { FlowConditions } from "#core/models/flow/simulate-coats";
import { boundTo } from "#core/models/product/bound-to";
import { type PartSheet, timesAt } from "#core/models/product/sheet";
import { UNLOGGED_AIR_K } from "#core/models/trade-limits";
import { coatGun } from "#core/models/ways/coat-gun";
import { plannedCoats } from "#core/models/ways/way";
import { conditionsOf } from "#core/panel/logged-setting";
import { handGun } from "#core/panel/next-coat";
import type { PanelView } from "./panel-view";

/** What a mix of a panel's own clear is asked from: what it is sprayed under, and what the flow model says of each hardener today. */
export function mixSetting(
  { state, product: { sheet }, panel, job: { way, finish } }: PanelView,
  parts: readonly { sheet: PartSheet }[],
): { conditions: FlowConditions; judged: HardenerToday[] } {
  const air_K = state.climate?.body.air_K ?? UNLOGGED_AIR_K;
  const conditions = conditionsOf({ sheet, facts: state, brief: panel, way }, { air_K, reducer: sheet.reducerMin });
  const { settings: gun } = handGun(state, way);
  const { flashMin_s: flash_s } = timesAt(sheet, air_K);
  const coats = plannedCoats(way, panel.coatsPlanned).map((c) => ({ gun: coatGun(gun, c), flash_s }));
  const hardeners = boundTo(sheet, parts, "hardener").map((h) => h.sheet);
  return { conditions, judged: hardenersToday(hardeners, { conditions, coats }, TEXTURE_LIMITS[finish]) };
}
