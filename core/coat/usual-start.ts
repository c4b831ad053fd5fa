import type { CupSheet } from "../models/product/mix-viscosity";
import type { ProductSheet } from "../models/product/sheet";
import { USUAL_GUN } from "../models/spray/usual-gun";
import { UNLOGGED_AIR_K } from "../models/trade-limits";
import { flowConditions } from "./setting";
import type { WindowAhead } from "./window-ahead";

/** A coat of nobody's panel: a usual gun on a usual day over base, the coats before it as itself, the sheet's least flash between. */
export function usualStart(
  sheet: Pick<ProductSheet, "speed" | "reducerMin" | "flashMin_s"> & CupSheet,
  { coats, tilt_rad }: { coats: number; tilt_rad: number },
): Omit<WindowAhead, "number"> {
  const reducer = sheet.reducerMin;
  return {
    conditions: flowConditions(sheet, { air_K: UNLOGGED_AIR_K, material_K: null, reducer, tilt_rad }),
    coats: Array.from({ length: coats }, (_, i) => ({ gun: USUAL_GUN, reducer, flash_s: i === coats - 1 ? 0 : sheet.flashMin_s })),
    laid: 0,
  };
}
