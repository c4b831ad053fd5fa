import type { Polygon } from "#core/kernel/geometry/geometry";
import { polygonArea } from "#core/kernel/geometry/geometry";
import { METRIC } from "#core/kernel/units/quantities";
import { mixOver } from "#core/coat/mix-over";
import { type MixPlan, mixPlan } from "#core/models/mix/mix-plan";
import type { ProductSheet } from "#core/models/product/sheet";
import type { MixSetting } from "#server/views/mix-view";
import { openingOf, startTyped } from "~/stations/plan/mix-start";
import { readMixDesk } from "~/stations/plan/mix.form";

/** A mix as its page opens, worked out as the page does; null: it does not accept its own figures. */
export function mixOpened(sheet: ProductSheet, mix: MixSetting, outline: Polygon): MixPlan | null {
  const typed = readMixDesk(startTyped(sheet, { ...openingOf(mix), matting: null }, METRIC), METRIC);
  if (!typed.success) return null;
  const { coats, waste, dead, ratio, reducer, meaning, transfer, film, temperature } = typed.data;
  const { strokes_m3 } = mixOver({ own: mix.faces, others: [], way: mix.way, gun: mix.gun, after: 0 }, coats);
  return mixPlan({
    ...{ sheet, hardener: null, thinner: null, ratio, reducer, meaning, coats, transfer, waste, strokes_m3 },
    areas: [{ area_m2: polygonArea(outline), bothSides: mix.faces.length === 2 }],
    dryFilm_m: film,
    dead_m3: dead,
    temperature_K: temperature,
    gun: { fan_m: 0.25, overlap: 0.5, handSpeed_m_s: 0.34 },
  });
}
