import type { Polygon } from "../kernel/geometry/geometry";
import { requireInteger } from "../kernel/guard";
import { GUN_BOUNDS } from "../models/bounds";
import { flowConditions } from "../coat/setting";
import { type FlowCoat, type FlowConditions, type ShopFactors, simulateCoats } from "../models/flow/simulate-coats";
import type { ByFilm } from "../models/panel-film/by-film";
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
  /** Least wait after it; null after the last. */
  wait_s: number | null;
}

/** What the bench's film dries and flows in, before a way adds to the reducer: the same as of a panel in the booth. */
export const benchConditions = ({ sheet, air_K, tilt_rad }: Pick<BenchSetting, "sheet" | "air_K" | "tilt_rad">): FlowConditions =>
  flowConditions(sheet, { air_K, material_K: null, reducer: sheet.reducerMin, tilt_rad });

/** The coats of a setting as their owner has them. @throws RangeError */
function ownersCoats(setting: BenchSetting) {
  const { way, sheet, coats, shop } = setting;
  requireInteger("coats", coats, { min: 1, max: 6 });
  const gun = startGun(way, { lying: isLying(setting.tilt_rad) });
  return coatPlan(way, { sheet, conditions: benchConditions(setting), gun, coats, shop });
}

/** The coats of a setting: gun, film, wait, where each would run. @throws RangeError */
export function benchCoats(setting: BenchSetting): BenchCoat[] {
  const options = setting.shop ? { shop: setting.shop } : {};
  return ownersCoats(setting).map(({ gun, reducer, dry_m, wait, conditions, build }) => ({
    gun,
    fan_m: fanOf(gun),
    reducer,
    dry_m,
    runFilm_m: simulateCoats(conditions, build, options).coats.at(-1)!.runFilm_m,
    wait_s: wait?.least_s ?? null,
  }));
}

/** A place of a coat may have so many times the film of it, after so long a wait. */
const TEXTURES = { shares: [0.3, 0.5, 0.75, 1, 1.5, 2, 2.5], waits_s: [60, 180, 420, 600, 900, 3600] } as const;

/** The same coats, the last with so many times its film by the hand's speed, after another wait. */
function otherwise(build: readonly FlowCoat[], share: number, wait_s: number): FlowCoat[] {
  const last = build.at(-1)!;
  const { min, max } = GUN_BOUNDS.handSpeed_m_s;
  const handSpeed_m_s = Math.min(max, Math.max(min, last.gun.handSpeed_m_s / share));
  return build.map((coat, i) => {
    if (i === build.length - 1) return { ...last, gun: { ...last.gun, handSpeed_m_s } };
    return i === build.length - 2 ? { ...coat, flash_s: wait_s } : coat;
  });
}

/**
 * Texture of all coats up to each, by the film of a place over the planned and by how long the coat below it had waited: the flow model's own, so that
 * bench and flow window say the same. About 1 ms for each figure. @throws RangeError
 */
export function benchTextures(setting: BenchSetting): ByFilm[] {
  const options = setting.shop ? { shop: setting.shop } : {};
  return ownersCoats(setting).map(({ conditions, build }) => {
    const { shares, waits_s } = { ...TEXTURES, ...(build.length === 1 ? { waits_s: [0] } : {}) };
    const of = (share: number, wait_s: number) => simulateCoats(conditions, otherwise(build, share, wait_s), options).texture;
    return { shares, waits_s, figures: waits_s.map((wait_s) => shares.map((share) => of(share, wait_s))) };
  });
}

/** Whether a way can be practised: every coat goes over the whole part, none is sanded before the next. */
export const canBePractised = (way: HouseWay, coats = way.coats.length): boolean =>
  plannedCoats(way, coats).every((c, i) => c.zone === "whole" && (i + 1 === coats || !c.sandAfter));
