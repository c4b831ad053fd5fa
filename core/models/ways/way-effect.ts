import { bearsAfter_s } from "./after-last-coat";
import type { Polygon } from "../../kernel/geometry/geometry";
import type { FlowConditions, ShopFactors } from "../flow/simulate-coats";
import type { ProductSheet } from "../product/sheet";
import { FLATTEN_S } from "../trade-limits";
import { coatPlan } from "./coat-plan";
import { likeliestToRun } from "./plan-rows";
import { isLying, startGun } from "./coat-gun";
import type { HouseWay } from "./way";
import { coatVolumes } from "./way-volumes";

/** What a way comes to on a part, sprayed by its own gun. */
export interface WayEffect {
  clear_m: number;
  u_clear_m: number;
  /** 1 glass … 5 heavy. */
  texture: number;
  /** The coat that is likeliest to run at an edge, and how likely. */
  nearRun: number;
  runChance: number;
  sagLocal_m: number;
  /** From the first stroke to the last, all least waits and cures before sanding between; and until it may be corrected. */
  sprayed_s: number;
  worked_s: number;
  /** Stays in the booth: one more with each build. */
  visits: number;
  volume_m3: number;
}
export interface WaySetting {
  sheet: ProductSheet;
  conditions: FlowConditions;
  outline: Polygon;
  shop?: ShopFactors | undefined;
  u_filmLog?: number | undefined;
}

/** Film, look, danger of a run, time and litres of a way: for choosing one, and for seeing what a change does. @throws RangeError */
export function wayEffect(way: HouseWay, { sheet, conditions, outline, shop, u_filmLog }: WaySetting): WayEffect {
  const gun = startGun(way, { lying: isLying(conditions.tilt_rad) });
  const coats = way.coats.length;
  const rows = coatPlan(way, {
    sheet,
    conditions,
    gun,
    coats,
    ...(shop ? { shop } : {}),
    ...(u_filmLog === undefined ? {} : { u_filmLog }),
  });
  const volumes = coatVolumes(way, { outline, gun, coats });
  const end = rows.at(-1)!;
  const near = likeliestToRun(rows)!;
  const sanded = rows.filter((r) => r.wait?.sand).length;
  const sprayed_s = volumes.reduce((a, v) => a + v.time_s, 0) + rows.reduce((a, r) => a + (r.wait?.least_s ?? 0), 0) + sanded * FLATTEN_S;
  return {
    clear_m: end.clear_m,
    u_clear_m: end.u_clear_m,
    texture: end.texture,
    nearRun: near.number,
    runChance: near.runChance,
    sagLocal_m: near.sagLocal_m,
    sprayed_s,
    worked_s: sprayed_s + bearsAfter_s(sheet, { way, finish: way.finish, air_K: conditions.air_K }),
    visits: sanded + 1,
    volume_m3: volumes.reduce((a, v) => a + v.volume_m3, 0),
  };
}
