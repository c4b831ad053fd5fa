import { requireInteger } from "../../kernel/guard";
import { SUBSTRATE_TEXTURE } from "../flow/constants";
import { EDGE_FILM, runChance, sagAtEdge } from "../flow/run-chance";
import { type FlowCoat, type FlowConditions, type ShopFactors, simulateCoats } from "../flow/simulate-coats";
import type { ProductSheet } from "../product/sheet";
import type { GunSettings } from "../spray/deposit";
import { SPRAY } from "../spray/constants";
import { type HouseWay, plannedCoat } from "./way";
import { coatGun } from "./coat-gun";
import type { PlannedCoatRow } from "./plan-rows";
import { steadily, waitAfter } from "./wait-after";

/**
 * A house way as coats of this gun today: film after each, wait between, when too soon and when too late.
 * Coats after a sanding start on a flat surface; the sanding's own loss is taken off the clear that is there.
 * @throws RangeError
 */
export function coatPlan(
  way: HouseWay,
  {
    sheet,
    conditions,
    gun,
    coats,
    shop,
    u_filmLog = SPRAY.shopLogSd,
  }: { sheet: ProductSheet; conditions: FlowConditions; gun: GunSettings; coats: number; shop?: ShopFactors; u_filmLog?: number },
): PlannedCoatRow[] {
  requireInteger("coats", coats, { min: 1, max: 12 });
  const rows: PlannedCoatRow[] = [];
  let build: FlowCoat[] = [];
  let below = conditions.below;
  let clear_m = 0;
  const perCoat: number[] = [];
  for (let number = 1; number <= coats; number++) {
    const planned = plannedCoat(way, number);
    const own = coatGun(gun, planned);
    build = [...build, { gun: own, flash_s: 0, reducer: conditions.reducer + planned.reducerShift }];
    const result = simulateCoats({ ...conditions, below }, build, shop ? { shop } : {});
    const { deposit } = result.coats.at(-1)!;
    const onPanel_m = planned.zone === "whole" ? deposit.dry_m : 0;
    clear_m += onPanel_m;
    perCoat.push(onPanel_m);
    const last = number === coats;
    const next = plannedCoat(way, number + 1);
    const wait = last
      ? null
      : waitAfter({
          planned,
          sheet,
          through: steadily(conditions.air_K),
          build,
          conditions: { ...conditions, below },
          next: { gun: coatGun(gun, next), reducer: conditions.reducer + next.reducerShift },
          shop,
        });
    rows.push({
      number,
      role: planned.role,
      gun: own,
      wet_m: deposit.wet_m,
      dry_m: deposit.dry_m,
      u_dry_m: Math.hypot(u_filmLog, SPRAY.coatLogSd) * deposit.dry_m,
      clear_m,
      u_clear_m: Math.hypot(u_filmLog * clear_m, ...perCoat.map((d) => SPRAY.coatLogSd * d)),
      texture: result.texture,
      verdict: result.verdict,
      sagLocal_m: result.sagLocal_m,
      runChance: runChance(sagAtEdge(result.sagLocal_m, EDGE_FILM / conditions.edge), u_filmLog),
      wait,
    });
    if (wait?.sand) {
      build = [];
      below = SUBSTRATE_TEXTURE.sanded;
      clear_m = Math.max(0, clear_m - way.flatten.removal_m);
    } else if (wait) build = build.map((c, i) => (i === build.length - 1 ? { ...c, flash_s: wait.least_s } : c));
  }
  return rows;
}
