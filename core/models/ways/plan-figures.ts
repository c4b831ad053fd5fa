import { requireInteger, requireNumber } from "../../kernel/guard";
import { spreadingRate } from "../mix/spreading-rate";
import type { ProductSheet } from "../product/sheet";

/** Share of what leaves the gun that lands: a usual hand. Common practice 50–70 %. */
export const PLAN_TRANSFER = 0.65;

export interface PlanFigures {
  dryMin_m: number;
  dryMax_m: number;
  /** Least clear above the floor by the sheet's own least film a coat. */
  spare_m: number;
  /** Ready-to-spray volume for the middle of the sheet's film. */
  volume_m3: number;
  transfer: number;
}

/** What the sheet promises for a count of coats on an area. @throws RangeError */
export function planFigures({
  sheet,
  coats,
  area_m2,
  floor_m,
}: {
  sheet: ProductSheet;
  coats: number;
  area_m2: number;
  floor_m: number;
}): PlanFigures {
  requireInteger("coats", coats, { min: 1, max: 20 });
  requireNumber("area_m2", area_m2, { above: 0 });
  const dryMin_m = coats * sheet.filmPerCoatMin_m;
  const dryMax_m = coats * sheet.filmPerCoatMax_m;
  const perVolume_m2 = spreadingRate({ volumeSolids: sheet.volumeSolids, dryFilm_m: (dryMin_m + dryMax_m) / 2 });
  return {
    dryMin_m,
    dryMax_m,
    spare_m: dryMin_m - requireNumber("floor_m", floor_m, { min: 0 }),
    volume_m3: area_m2 / perVolume_m2 / PLAN_TRANSFER,
    transfer: PLAN_TRANSFER,
  };
}
