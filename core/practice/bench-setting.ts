import type { Polygon } from "../kernel/geometry/geometry";
import { requireInteger } from "../kernel/guard";
import { GUN_BOUNDS } from "../models/bounds";
import { flowConditions } from "../coat/setting";
import { type FlowCoat, type FlowConditions, type ShopFactors, simulateCoats } from "../models/flow/simulate-coats";
import type { FaceCurve } from "../models/panel-film/panel-film";
import type { ProductSheet } from "../models/product/sheet";
import { type GunSettings, fanOf } from "../models/spray/deposit";
import { isLying, startGun } from "../models/ways/coat-gun";
import { coatPlan } from "../models/ways/coat-plan";
import { type HouseWay, plannedCoats } from "../models/ways/way";

/** What hangs on the practice bench, and what it is sprayed with and in. */
export interface BenchSetting {
  outline: Polygon;
  /** How it lies; of a curved face as its steepest place does, which is what the way goes by. */
  tilt_rad: number;
  curve?: FaceCurve | undefined;
  /** The rows of every other coat lie between those of the one before it. */
  staggered?: boolean | undefined;
  sheet: ProductSheet;
  way: HouseWay;
  coats: number;
  air_K: number;
  shop?: ShopFactors | undefined;
}

/** A coat as the way wants it here, today. */
export interface BenchCoat {
  gun: GunSettings;
  fan_m: number;
  reducer: number;
  /** Film of this coat alone, and the wet film with what it softens below at which it would run. */
  dry_m: number;
  runFilm_m: number;
  /** Texture of all coats up to this one, by the film of this one over the planned: the flow model's own. */
  textures: readonly { share: number; texture: number }[];
  /** Least wait after it; null after the last. */
  wait_s: number | null;
}

/** A place of the last coat may have so many times the film of it; between them texture goes over. */
const TEXTURE_SHARES = [0.3, 0.5, 0.75, 1, 1.5, 2.5] as const;
/** The same coats, the last with so many times its film by the hand's speed. */
function withFilm(build: readonly FlowCoat[], share: number): FlowCoat[] {
  const last = build.at(-1)!;
  const { min, max } = GUN_BOUNDS.handSpeed_m_s;
  const handSpeed_m_s = Math.min(max, Math.max(min, last.gun.handSpeed_m_s / share));
  return [...build.slice(0, -1), { ...last, gun: { ...last.gun, handSpeed_m_s } }];
}

/** What the bench's film dries and flows in, before a way adds to the reducer: the same as of a panel in the booth. */
export const benchConditions = ({ sheet, air_K, tilt_rad }: Pick<BenchSetting, "sheet" | "air_K" | "tilt_rad">): FlowConditions =>
  flowConditions(sheet, { air_K, material_K: null, reducer: sheet.reducerMin, tilt_rad });

/** The coats of a setting as their owner has them: gun, film, wait, chance of a run. @throws RangeError */
export function benchCoats(setting: BenchSetting): BenchCoat[] {
  const { way, sheet, coats, shop } = setting;
  requireInteger("coats", coats, { min: 1, max: 6 });
  const rows = coatPlan(way, {
    sheet,
    conditions: benchConditions(setting),
    gun: startGun(way, { lying: isLying(setting.tilt_rad) }),
    coats,
    shop,
  });
  const options = shop ? { shop } : {};
  return rows.map(({ gun, reducer, dry_m, wait, conditions, build }) => ({
    gun,
    fan_m: fanOf(gun),
    reducer,
    dry_m,
    runFilm_m: simulateCoats(conditions, build, options).coats.at(-1)!.runFilm_m,
    textures: TEXTURE_SHARES.map((share) => ({ share, texture: simulateCoats(conditions, withFilm(build, share), options).texture })),
    wait_s: wait?.least_s ?? null,
  }));
}

/** Whether a way can be practised: every coat goes over the whole part, none is sanded before the next. */
export const canBePractised = (way: HouseWay, coats = way.coats.length): boolean =>
  plannedCoats(way, coats).every((c, i) => c.zone === "whole" && (i + 1 === coats || !c.sandAfter));
