import { FLOW_COAT } from "./flow-coat";
import { inRange, requireInteger } from "../../kernel/guard";
import { SUBSTRATE_TEXTURE } from "../flow/constants";
import { CHANCE_WORDS, edgeRunChance } from "../flow/run-chance";
import { type FlowCoat, type FlowConditions, type FlowResult, type ShopFactors, simulateCoats } from "../flow/simulate-coats";
import { SPRAY } from "../spray/constants";
import type { GunSettings } from "../spray/deposit";
import { MOST_CLEAR_M, MOST_TOTAL_M } from "../trade-limits";
import { coatGun } from "./coat-gun";
import { usualCoat } from "./house-ways";
import type { HouseWay, PlannedCoat } from "./way";

/** Coats laid on a build that was cured and sanded flat: how they are sprayed, and what they come to. */
export interface FlowStage {
  /** The hand's pace at which a run is unlikely; null: it is at none, with this gun in this air. */
  coat: PlannedCoat | null;
  gun: GunSettings | null;
  coats: number;
  flash_s: number;
  /** Clear that the new coats lay, and all that is there then, with its uncertainty. */
  adds_m: number;
  clear_m: number;
  u_clear_m: number;
  total_m: number;
  texture: number;
  /** How far it slides at the worst place, and its chance of a run at an edge; null where no hand keeps it from running. */
  sagLocal_m: number | null;
  runChance: number | null;
  /** What speaks against it whatever the hand does. */
  against: "runs" | "clear build" | "total build" | null;
}

const FASTEST = 2.4;
const SEARCH = 20;

/**
 * Coats over a flatted build: the slowest hand, from a little slower than usual, at which a run is unlikely at an edge by the flow model; the film
 * they add, and whether all together stays within limits. @throws RangeError
 */
export const flowStage = (asked: FlowStageAsked): FlowStage => layFlowStage(asked).stage;

export interface FlowStageAsked {
  /** Between its coats. */
  flash_s: number;
  /** How the part hangs, the day, the reducer of the mix; what lies below is the sanded build. */
  conditions: FlowConditions;
  gun: GunSettings;
  /** Clear that the sanding leaves. */
  left: { clear_m: number; u_m: number };
  /** All layers below the clear. */
  under_m: number;
  coats?: number;
  shop?: ShopFactors | undefined;
  u_filmLog?: number | undefined;
}

/** The same with what the flow model says of the coats: where no hand keeps them from running, of the fastest. @throws RangeError */
export function layFlowStage({
  flash_s,
  conditions,
  gun,
  left,
  under_m,
  coats = FLOW_COAT.coats,
  shop,
  u_filmLog = SPRAY.shopLogSd,
}: FlowStageAsked): { stage: FlowStage; laid: FlowResult | null } {
  requireInteger("coats", coats, { min: 1, max: 4 });
  const flat = { ...conditions, below: SUBSTRATE_TEXTURE.sanded };
  const planned = (speedFactor: number): PlannedCoat => ({
    ...usualCoat(),
    role: "flow",
    speedFactor,
    reducerShift: FLOW_COAT.reducerShift,
  });
  const lay = (speedFactor: number) => {
    const coat: FlowCoat = {
      gun: coatGun(gun, planned(speedFactor)),
      reducer: conditions.reducer + FLOW_COAT.reducerShift,
      flash_s,
    };
    const list = Array.from({ length: coats }, () => coat);
    return inRange(() => simulateCoats(flat, list, shop ? { shop } : {}));
  };
  const chanceOf = (result: FlowResult) => edgeRunChance(result.sagLocal_m, { edge: conditions.edge, u_filmLog });
  const safe = (speedFactor: number) => {
    const laid = lay(speedFactor);
    return laid ? chanceOf(laid) < CHANCE_WORDS.may : false;
  };
  const speedFactor = slowest(safe);
  const result = speedFactor === null ? null : lay(speedFactor);
  const adds_m = result?.dry_m ?? 0;
  const clear_m = left.clear_m + adds_m;
  const total_m = under_m + clear_m;
  const chosen = speedFactor === null ? null : planned(speedFactor);
  const stage: FlowStage = {
    coat: chosen,
    gun: chosen && coatGun(gun, chosen),
    coats,
    flash_s,
    adds_m,
    clear_m,
    u_clear_m: Math.hypot(left.u_m, u_filmLog * adds_m, (SPRAY.coatLogSd * adds_m) / Math.sqrt(coats)),
    total_m,
    texture: result?.texture ?? NaN,
    sagLocal_m: result?.sagLocal_m ?? null,
    runChance: result && chanceOf(result),
    against: result === null ? "runs" : total_m > MOST_TOTAL_M ? "total build" : clear_m > MOST_CLEAR_M ? "clear build" : null,
  };
  return { stage, laid: result ?? lay(FASTEST) };

  /** A faster hand lays less and runs later: halving finds where it begins to be safe. */
  function slowest(is: (factor: number) => boolean): number | null {
    if (is(FLOW_COAT.speedFactor)) return FLOW_COAT.speedFactor;
    if (!is(FASTEST)) return null;
    let [low, high]: [number, number] = [FLOW_COAT.speedFactor, FASTEST];
    for (let i = 0; i < SEARCH && high - low > 0.005; i++) {
      const middle = (low + high) / 2;
      if (is(middle)) high = middle;
      else low = middle;
    }
    return high;
  }
}

/**
 * A way that goes on from so many coats with a flow coat: what is on is cured and sanded flat, then the flow coats follow. Coats that the way has
 * before are as they were; what it had after is left out. @throws RangeError
 */
export function withFlowCoats(way: HouseWay, on: number, { coat, coats }: { coat: PlannedCoat; coats: number }): HouseWay {
  requireInteger("on", on, { min: 1, max: 10 });
  const before = Array.from({ length: on }, (_, i) => way.coats[Math.min(i, way.coats.length - 1)]!);
  const FLOW = "flow-";
  return {
    ...way,
    id: way.id.startsWith(FLOW) ? way.id : `${FLOW}${way.id}`,
    name: `${way.name.replace(/, then flow coat$/, "")}, then flow coat`.slice(0, 40),
    source: "house-way",
    coats: [
      ...before.map((c, i) => (i === on - 1 ? { ...c, sandAfter: true } : c)),
      ...Array.from({ length: coats }, () => ({ ...coat, sandAfter: false })),
    ],
  };
}
