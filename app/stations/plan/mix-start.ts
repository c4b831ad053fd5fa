import { filmOfCoat } from "#core/coat/mix-over";
import { USUAL_DEAD_M3, USUAL_WASTE } from "#core/coat/usual-waste";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import type { ProductSheet } from "#core/models/product/sheet";
import { usualRatio } from "#core/models/product/roles";
import { PLAN_TRANSFER } from "#core/models/ways/plan-figures";
import type { MixSetting } from "#server/views/mix-view";
import { initial } from "~/kit/form/initial";
import type { MixTyped } from "./mix.form";

/** What the fields begin with. */
export interface Opening {
  coats: number;
  /** Dry film of a coat, and reducer: the sheet's where no panel says. */
  film_m?: number | undefined;
  reducer?: number | undefined;
  air_K: number;
  matting: number | null;
}
export const startTyped = (sheet: ProductSheet, { coats, film_m, reducer, air_K, matting }: Opening, units: UnitPreferences): MixTyped => ({
  ratio: sheet.ratio || usualRatio(sheet),
  reducer: initial("share", reducer ?? sheet.reducerMin, units),
  meaning: "activated",
  coats: String(coats),
  film: initial("film", film_m ?? (sheet.filmPerCoatMin_m + sheet.filmPerCoatMax_m) / 2, units),
  transfer: initial("share", PLAN_TRANSFER, units),
  waste: initial("share", USUAL_WASTE, units),
  dead: initial("volume", USUAL_DEAD_M3, units),
  temperature: initial("temperature", air_K, units),
  pot: initial("volume", 1e-3, units),
  limit: "",
  matting: initial("share", matting, units),
});

/** A mix of a panel's own clear begins with its coats to come. */
export const openingOf = ({ faces, reducer, conditions }: MixSetting): Omit<Opening, "matting"> => ({
  coats: Math.max(1, ...faces.map((f) => f.coats.length)),
  film_m: filmOfCoat(faces[0]?.coats ?? []) ?? undefined,
  reducer,
  air_K: conditions.air_K,
});
