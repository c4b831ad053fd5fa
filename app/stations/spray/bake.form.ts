import { tooHot } from "#core/models/cure/bake-plan";
import type { ProductSheet } from "#core/models/product/sheet";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import { readTyped } from "~/kit/form/read-typed";
import { tooHotWords } from "~/kit/words/too-hot";

/** A bake as it is typed, within what the product's sheet speaks of; null: nothing is baked. */
export const readBake = (typed: Record<string, unknown>, units: UnitPreferences, sheet: Pick<ProductSheet, "bake"> | null) =>
  readTyped(typed, units, (r) => {
    const air = r.quantity("air", "temperature", { min: 298.15, max: 358.15 });
    if (sheet && tooHot(sheet, air)) r.wrong("air", tooHotWords(sheet, units));
    return {
      room: r.quantity("room", "temperature", { min: 278.15, max: 313.15 }),
      air,
      purge: r.quantity("purge", "duration", { min: 0, max: 7200 }),
      ramp: r.quantity("ramp", "duration", { min: 60, max: 7200 }),
      hold: r.quantity("hold", "duration", { min: 60, max: 14400 }),
    };
  });
