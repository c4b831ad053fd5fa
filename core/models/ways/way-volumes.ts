import { type Polygon, polygonArea, polygonPerimeter } from "../../kernel/geometry/geometry";
import { requireInteger, requireNumber } from "../../kernel/guard";
import { remember } from "../../kernel/remember";
import { spreadingRate } from "../mix/spreading-rate";
import type { GunSettings } from "../spray/deposit";
import { type CoatOver, type CoatVolume, type PartOver, coatOver } from "../spray/coat-over";
import { coatGun } from "./coat-gun";
import { type HouseWay, plannedCoat } from "./way";
import type { CoatZone } from "./terms";

/** What is sprayed of a part where only a place of it is: a half, what nobody has drawn of repaired spots, a stroke along the edge. Defaults of ours. */
const HALF = 0.5;
export const SPOTS_SHARE = 0.25;
const EDGE_STROKE_M = 0.1;
const zoneShare = (zone: CoatZone, outline: Polygon): number =>
  zone === "whole"
    ? 1
    : zone === "spots"
      ? SPOTS_SHARE
      : zone === "edges"
        ? Math.min(1, (EDGE_STROKE_M * polygonPerimeter(outline)) / polygonArea(outline))
        : HALF;

/** Ready-to-spray material and time of one coat of one face with this gun. @throws RangeError */
export function volumeOfCoat(outline: Polygon, gun: GunSettings, { zone, ...over }: CoatOver & { zone: CoatZone }): CoatVolume {
  const whole = coatAsked({ outline, gun, over });
  const share = zoneShare(zone, outline);
  return { ...whole, volume_m3: share * whole.volume_m3, time_s: share * whole.time_s };
}

/** Asked with every entry and by every page of a panel: so many parts and guns are remembered. */
const COATS = 400;
const coatAsked = remember(COATS, ({ outline, gun, over }: { outline: Polygon; gun: GunSettings; over: CoatOver }) =>
  coatOver(outline, gun, over),
);

/** Ready-to-spray material and time of each coat of one face, from the hand's strokes with this gun at the way's pace. @throws RangeError */
export function coatVolumes(way: HouseWay, { outline, rows, gun, coats }: PartOver & { gun: GunSettings; coats: number }): CoatVolume[] {
  requireInteger("coats", coats, { min: 1, max: 20 });
  return Array.from({ length: coats }, (_, i): CoatVolume => {
    const planned = plannedCoat(way, i + 1);
    return volumeOfCoat(outline, coatGun(gun, planned), { zone: planned.zone, trigger: way.trigger, rows, number: i + 1 });
  });
}

/** What the area says: a check beside the strokes, too little for small parts. @throws RangeError */
export function volumeByArea(o: { area_m2: number; dryFilm_m: number; volumeSolids: number; transfer: number }): number {
  const perVolume_m2 = spreadingRate({ volumeSolids: o.volumeSolids, dryFilm_m: o.dryFilm_m });
  return requireNumber("area_m2", o.area_m2, { above: 0 }) / perVolume_m2 / requireNumber("transfer", o.transfer, { above: 0, max: 1 });
}
