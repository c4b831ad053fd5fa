import { requireInteger } from "../../kernel/guard";
import { FLOW } from "../flow/constants";
import { type FlowConditions, type FlowResult, type ShopFactors, simulateCoats } from "../flow/simulate-coats";
import { type ProductSheet, timesAt } from "../product/sheet";
import type { GunSettings } from "../spray/deposit";
import { SPRAY } from "../spray/constants";
import { type HouseWay, plannedCoat } from "./house-ways";

export interface PlannedWait {
  /** Sheet's least wait, by the way's own factor, and its longest. */
  soonest_s: number;
  latest_s: number;
  /** Sooner than this the next coat would run by the model; 0: it would not run at any wait. Null: it runs however long one waits. */
  runsBefore_s: number | null;
  /** Sanded flat and cleaned before the next coat. */
  sand: boolean;
}
export interface PlannedCoatRow {
  number: number;
  role: string;
  gun: GunSettings;
  wet_m: number;
  dry_m: number;
  u_dry_m: number;
  /** Clear there after it, with its uncertainty. */
  clear_m: number;
  u_clear_m: number;
  /** Texture after it, 1 glass … 5 heavy, and how it stands against a run, at the soonest wait before it. */
  texture: number;
  verdict: FlowResult["verdict"];
  wait: PlannedWait | null;
}

const SEARCH_STEPS = 24;
const SANDED = { long_m: 0.03e-6, short_m: 0.12e-6 } as const;
/** What flatting between builds takes off: common practice, 8 µm. */
const FLAT_M = 8e-6;

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
  const times = timesAt(sheet, conditions.air_K);
  const rows: PlannedCoatRow[] = [];
  let build: { gun: GunSettings; flash_s: number }[] = [];
  let below = conditions.below;
  let clear_m = 0;
  const perCoat: number[] = [];
  for (let number = 1; number <= coats; number++) {
    const planned = plannedCoat(way, number);
    const own: GunSettings = { ...gun, handSpeed_m_s: gun.handSpeed_m_s * planned.speedFactor };
    build = [...build, { gun: own, flash_s: 0 }];
    const result = simulateCoats({ ...conditions, below }, build, shop ? { shop } : {});
    const { deposit } = result.coats.at(-1)!;
    clear_m += deposit.dry_m;
    perCoat.push(deposit.dry_m);
    const last = number === coats;
    const sand = planned.sandAfter === true && !last;
    const soonest_s = sand ? sheet.sandAfter_s : times.flashMin_s * planned.flashFactor;
    const next = plannedCoat(way, number + 1);
    const wait: PlannedWait | null = last
      ? null
      : {
          soonest_s,
          latest_s: sand ? Infinity : Math.max(soonest_s, times.flashMax_s),
          runsBefore_s: sand
            ? 0
            : runsBefore(conditions, below, build, { ...gun, handSpeed_m_s: gun.handSpeed_m_s * next.speedFactor }, times.flashMax_s, shop),
          sand,
        };
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
      wait,
    });
    if (sand) {
      build = [];
      below = SANDED;
      clear_m = Math.max(0, clear_m - FLAT_M);
    } else if (wait) build = build.map((c, i) => (i === build.length - 1 ? { ...c, flash_s: wait.soonest_s } : c));
  }
  return rows;
}

/** Shortest wait at which the next coat does not run; sag falls with the wait, so halving finds it. */
function runsBefore(
  conditions: FlowConditions,
  below: FlowConditions["below"],
  build: readonly { gun: GunSettings; flash_s: number }[],
  nextGun: GunSettings,
  most_s: number,
  shop: ShopFactors | undefined,
): number | null {
  const runs = (flash_s: number) => {
    const coats = [...build.slice(0, -1), { ...build.at(-1)!, flash_s }, { gun: nextGun, flash_s: 0 }];
    return simulateCoats({ ...conditions, below }, coats, shop ? { shop } : {}).sagLocal_m > FLOW.sagRun_m;
  };
  if (!runs(0)) return 0;
  if (runs(most_s)) return null;
  let [low, high] = [0, most_s];
  for (let i = 0; i < SEARCH_STEPS && high - low > 5; i++) {
    const middle = (low + high) / 2;
    if (runs(middle)) low = middle;
    else high = middle;
  }
  return high;
}
