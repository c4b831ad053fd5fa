import { type Polygon, polygonArea } from "../../kernel/geometry/geometry";
import { requireInteger } from "../../kernel/guard";
import type { GunSettings } from "../spray/deposit";
import { SPRAY } from "../spray/constants";
import { type Trigger, coatVolume, strokesOver } from "../spray/strokes";
import { type HouseWay, plannedCoat } from "./house-ways";

/** Repaired spots against the whole part, where nobody has drawn them: a default of ours. */
export const SPOTS_SHARE = 0.25;

export interface CoatVolume {
  /** Ready-to-spray material through the gun, and how long the passes take. */
  volume_m3: number;
  time_s: number;
  strokes: number;
}

/** Ready-to-spray material and time of each coat of one face, from the hand's strokes with this gun at the way's pace. @throws RangeError */
export function coatVolumes(
  way: HouseWay,
  { outline, gun, coats, trigger }: { outline: Polygon; gun: GunSettings; coats: number; trigger?: Trigger },
): CoatVolume[] {
  requireInteger("coats", coats, { min: 1, max: 20 });
  const fan_m = gun.fan_m ?? (SPRAY.fanRef_m * gun.distance_m) / SPRAY.distanceRef_m;
  return Array.from({ length: coats }, (_, i): CoatVolume => {
    const { speedFactor, zone = "whole" } = plannedCoat(way, i + 1);
    const strokes = strokesOver(outline, {
      fan_m,
      overlap: gun.overlap,
      handSpeed_m_s: gun.handSpeed_m_s * speedFactor,
      ...(trigger ? { trigger } : {}),
    });
    const share = zone === "whole" ? 1 : SPOTS_SHARE;
    return { volume_m3: share * coatVolume(strokes, gun.fluidRate_m3_s), time_s: share * strokes.time_s, strokes: strokes.count };
  });
}

/** What the area says: a check beside the strokes, too little for small parts. @throws RangeError */
export const volumeByArea = (o: { outline: Polygon; dryFilm_m: number; volumeSolids: number; transfer: number }): number =>
  (polygonArea(o.outline) * o.dryFilm_m) / o.volumeSolids / o.transfer;
