import { requireInteger } from "../../kernel/guard";
import { SUBSTRATE_TEXTURE } from "../flow/constants";
import { edgeRunChance } from "../flow/run-chance";
import { type FlowCoat, type FlowConditions, type ShopFactors, simulateCoats } from "../flow/simulate-coats";
import type { ProductSheet } from "../product/sheet";
import type { GunSettings } from "../spray/deposit";
import { SPRAY } from "../spray/constants";
import { filmDoubt } from "../spray/film-doubt";
import { type HouseWay, plannedCoat } from "./way";
import { coatGun } from "./coat-gun";
import type { PlannedCoatRow } from "./plan-rows";
import { atConstantAir, waitAfter } from "./wait-after";

export interface CoatPlanAsked {
  sheet: ProductSheet;
  /** What it is sprayed under; its reducer is that of the gun in the hand, before a way adds to it. */
  conditions: FlowConditions;
  gun: GunSettings;
  /** The way's coats up to this one. */
  coats: number;
  /** So many of them are on. */
  on?: number;
  /** Of those the ones that lie wet on wet below the next, with the wait after each. */
  laid?: readonly FlowCoat[];
  /** Its reducer is what stands mixed, for the next coat as it is; what a way adds for a later one goes into a second, wetter pot. */
  mixed?: boolean;
  shop?: ShopFactors | undefined;
  u_filmLog?: number | undefined;
}

/** The most coats that are planned ahead. */
export const MOST_COATS = 12;

/**
 * The coats of a house way that are still to come, with this gun today: film after each, wait between, when too soon and when too late.
 * Coats after a sanding start on a flat surface; the sanding's own loss is taken off the clear that is there.
 * @throws RangeError
 */
export function coatPlan(
  way: HouseWay,
  { sheet, conditions, gun, coats, on = 0, laid = [], mixed = false, shop, u_filmLog = SPRAY.shopLogSd }: CoatPlanAsked,
): PlannedCoatRow[] {
  requireInteger("coats", coats, { min: 1, max: MOST_COATS });
  requireInteger("on", on, { min: 0, max: 100 });
  const options = shop ? { shop } : {};
  const rows: PlannedCoatRow[] = [];
  let build: readonly FlowCoat[] = laid;
  let { below } = conditions;
  let clear_m = 0;
  const perCoat: number[] = [];
  /** What a way adds to the reducer of a coat, against the one that the pot was mixed for. */
  const inPot = mixed ? plannedCoat(way, on + 1).reducerShift : 0;
  const shift = (number: number) => Math.max(-conditions.reducer, plannedCoat(way, number).reducerShift - inPot);
  const sprayed = (number: number) => ({
    gun: coatGun(gun, { ...plannedCoat(way, number), reducerShift: shift(number) }),
    reducer: conditions.reducer + shift(number),
  });
  for (let number = on + 1; number <= coats; number++) {
    const planned = plannedCoat(way, number);
    const own = sprayed(number);
    build = [...build, { ...own, flash_s: 0 }];
    const under: FlowConditions = { ...conditions, below };
    const result = simulateCoats(under, build, options);
    const { wet_m, dry_m: laid_m } = result.coats.at(-1)!.deposit;
    const dry_m = planned.zone === "whole" ? laid_m : 0;
    clear_m += dry_m;
    perCoat.push(dry_m);
    const wait =
      number === coats
        ? null
        : waitAfter({
            planned,
            sheet,
            through: atConstantAir(conditions.air_K),
            build,
            conditions: under,
            next: sprayed(number + 1),
            shop,
          });
    rows.push({
      number,
      role: planned.role,
      zone: planned.zone,
      ...own,
      conditions: { ...under, reducer: own.reducer },
      build,
      wet_m,
      dry_m,
      u_dry_m: filmDoubt([dry_m], u_filmLog),
      clear_m,
      u_clear_m: filmDoubt(perCoat, u_filmLog),
      texture: result.texture,
      verdict: result.verdict,
      sagLocal_m: result.sagLocal_m,
      runChance: edgeRunChance(result.sagLocal_m, { edge: conditions.edge, u_filmLog }),
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
