import { nearestPaper } from "../models/prep/papers";
import { type ShopRemoval, clearingPlan } from "../models/correction/clearing";
import type { Removal } from "../models/correction/removal-plan";
import type { ShopFactors } from "../models/flow/simulate-coats";
import { type ProductSheet, timesAt } from "../models/product/sheet";
import { UNLOGGED_AIR_K } from "../models/trade-limits";
import { type FlowStage, flowStage } from "../models/ways/flow-stage";
import type { HouseWay } from "../models/ways/way";
import type { ShopFilm } from "../panel/shop-film";
import { handGun } from "../coat/next-coat";
import { conditionsOf } from "../coat/setting";
import type { PanelBrief } from "../panel/brief";
import type { PanelState } from "./account";
import { clearNow } from "./how-known";
import { type HoldingFault, WHOLE_PANEL, faultsHolding } from "../panel/fault-holds";
import { inRange } from "../kernel/guard";
import { textureOf } from "./texture";

/** What sanding a build flat takes off, as the way has it; more where the peel that was seen on it goes deeper. @throws RangeError */
export function flatRemoval(flatten: HouseWay["flatten"], state: PanelState, shop?: ShopRemoval): Removal {
  const own: Removal = { removal_m: flatten.removal_m, u_m: flatten.u_m };
  const { texture, from } = textureOf(state);
  if (from === "usual") return own;
  const use = { grit: nearestPaper(flatten.grit), backing: flatten.by === "machine" ? "soft" : "medium" } as const;
  const { total } = clearingPlan([use], texture, shop);
  return total.removal_m > own.removal_m ? total : own;
}

export interface FlowAsked {
  panel: PanelBrief;
  state: PanelState;
  product: { sheet: ProductSheet };
  job: { way: HouseWay };
  shopRemoval: ShopRemoval;
  shopFactors: ShopFactors;
  shopFilm: ShopFilm;
}
export interface FlowPlan {
  /** Clear there now, and what the sanding takes off it. */
  there: { clear_m: number; u_m: number };
  flat: Removal;
  stage: FlowStage;
  /** Marked faults that have to be seen to before it is sanded flat and cleared again. */
  held: HoldingFault[];
}

/** A flow coat on what is there: asked by its own page and by the options; null with no clear, or a setting beyond the model. */
export function flowPlanOf({
  panel,
  state,
  product: { sheet },
  job: { way },
  shopRemoval,
  shopFactors,
  shopFilm,
}: FlowAsked): FlowPlan | null {
  const there = clearNow(state);
  if (!there) return null;
  const hand = handGun({ facts: state, way, sheet, brief: panel });
  const flat = flatRemoval(way.flatten, state, shopRemoval);
  const air_K = state.climate?.body.air_K ?? UNLOGGED_AIR_K;
  return inRange(() => ({
    there,
    flat,
    held: faultsHolding(state, ["paper", "clear"], WHOLE_PANEL),
    stage: flowStage({
      flash_s: timesAt(sheet, air_K).flashMin_s,
      // Out of a pot yet to be mixed: by the sheet's own hardener.
      conditions: conditionsOf({ sheet, facts: { ...state, mix: null }, brief: panel }, { air_K, reducer: hand.reducer }),
      gun: hand.settings,
      left: { clear_m: Math.max(0, there.clear_m - flat.removal_m), u_m: Math.hypot(there.u_m, flat.u_m) },
      under_m: state.layers.filter((l) => l.tone !== "clear").reduce((a, l) => a + l.thickness_m, 0),
      shop: shopFactors,
      u_filmLog: shopFilm.u_log,
    }),
  }));
}
