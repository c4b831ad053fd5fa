import { polygonArea } from "../../kernel/geometry/geometry";
import { requireInteger, requireNumber } from "../../kernel/guard";
import type { ProductSheet } from "../product/sheet";
import type { GunSettings } from "../spray/deposit";
import { type HouseWay, plannedCoats } from "./way";
import { coatShare } from "./coat-gun";
import type { CoatVolume, PartOver } from "../spray/coat-over";
import { coatVolumes, volumeByArea } from "./way-volumes";

/** Share of what leaves the gun that lands: a usual hand over a usual panel. Common practice 50–70 %; small parts far less. */
export const PLAN_TRANSFER = 0.65;

export interface PlanFigures {
  dryMin_m: number;
  dryMax_m: number;
  /** Coats of the sheet's film that the way lays over the panel: a fast one counts for less, one on spots for nothing. */
  fullCoats: number;
  /** Taken off again by flatting between builds. */
  flatted_m: number;
  /** Least clear above the floor by the sheet's own least film a coat. */
  spare_m: number;
  /** Ready-to-spray material of all coats on all faces by the strokes of this gun, coat by coat of one face; beside it what the area says. */
  volume_m3: number;
  coats: CoatVolume[];
  byArea_m3: number;
  transfer: number;
}

/** What a way with the sheet's film promises on a part, and the material that it takes with this gun. @throws RangeError */
export function planFigures({
  sheet,
  way,
  coats,
  outline,
  rows,
  sides = 1,
  gun,
  floor_m,
}: PartOver & {
  sheet: ProductSheet;
  way: HouseWay;
  coats: number;
  sides?: 1 | 2 | undefined;
  gun: GunSettings;
  floor_m: number;
}): PlanFigures {
  requireInteger("coats", coats, { min: 1, max: 20 });
  const planned = plannedCoats(way, coats);
  const fullCoats = planned.reduce((a, c) => a + coatShare(c, gun), 0);
  const flatted_m = way.flatten.removal_m * planned.slice(0, -1).filter((c) => c.sandAfter).length;
  const dryMin_m = Math.max(0, fullCoats * sheet.filmPerCoatMin_m - flatted_m);
  const dryMax_m = Math.max(0, fullCoats * sheet.filmPerCoatMax_m - flatted_m);
  const volumes = coatVolumes(way, { outline, rows, gun, coats });
  return {
    dryMin_m,
    dryMax_m,
    fullCoats,
    flatted_m,
    spare_m: dryMin_m - requireNumber("floor_m", floor_m, { min: 0 }),
    volume_m3: sides * volumes.reduce((a, v) => a + v.volume_m3, 0),
    coats: volumes,
    byArea_m3:
      sides *
      volumeByArea({
        area_m2: polygonArea(outline),
        dryFilm_m: (fullCoats * (sheet.filmPerCoatMin_m + sheet.filmPerCoatMax_m)) / 2,
        volumeSolids: sheet.volumeSolids,
        transfer: PLAN_TRANSFER,
      }),
    transfer: PLAN_TRANSFER,
  };
}
