import { useMemo } from "react";
import { type MixInput, type MixPlan, mixPlan } from "#core/models/mix/mix-plan";
import { matteBlend } from "#core/models/mix/matte-blend";
import type { AnySheet, PartSheet, ProductSheet } from "#core/models/product/sheet";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import { type MixTyped, readMixDesk } from "./mix.form";

/** A usual hand for the time a coat takes. */
export const USUAL_HAND = { fan_m: 0.25, overlap: 0.5, handSpeed_m_s: 0.34 };

export interface MixWorked {
  plan: MixPlan | null;
  input: MixInput | null;
  potCapacity_m3: number;
  vocLimit_kg_m3: number | null;
  errors: Record<string, string[]>;
  fault: string | null;
}

/** Reads what is typed and works the mix out; wrong fields come back by name and the last figures stay away. */
export function useMixPlan(
  typed: MixTyped,
  units: UnitPreferences,
  given: {
    sheet: ProductSheet;
    hardener: PartSheet | null;
    thinner: PartSheet | null;
    /** What a matte clear is blended with. */
    partner?: AnySheet | null | undefined;
    areas: MixInput["areas"];
    gun?: MixInput["gun"];
    /** Material of so many coats by the gun's strokes, coat by coat. */
    strokes?: ((coats: number) => number[]) | undefined;
    /** How long it takes, coat by coat. */
    times?: ((coats: number) => number[]) | undefined;
  },
): MixWorked {
  const { sheet, hardener, thinner, partner = null, areas, strokes, times, gun = USUAL_HAND } = given;
  return useMemo(() => {
    const nothing = { plan: null, input: null, potCapacity_m3: 0, vocLimit_kg_m3: null };
    const parsed = readMixDesk(typed, units);
    if (!parsed.success) return { ...nothing, errors: parsed.errors, fault: null };
    const v = parsed.data;
    if (areas.length === 0) return { ...nothing, errors: {}, fault: "Choose at least one panel to spray." };
    try {
      const input: MixInput = {
        sheet,
        hardener,
        thinner,
        blend: partner && v.matting !== null ? matteBlend(sheet, [partner], v.matting) : null,
        ratio: v.ratio,
        reducer: v.reducer,
        meaning: v.meaning,
        areas,
        coats: v.coats,
        dryFilm_m: v.film,
        transfer: v.transfer,
        waste: v.waste,
        dead_m3: v.dead,
        temperature_K: v.temperature,
        gun,
        strokes_m3: strokes?.(v.coats) ?? null,
        coats_s: times?.(v.coats) ?? null,
      };
      return { plan: mixPlan(input), input, potCapacity_m3: v.pot, vocLimit_kg_m3: v.limit, errors: {}, fault: null };
    } catch (error) {
      if (!(error instanceof RangeError)) throw error;
      return { ...nothing, errors: {}, fault: error.message };
    }
  }, [typed, units, sheet, hardener, thinner, partner, areas, gun, strokes, times]);
}
