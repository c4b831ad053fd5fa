import { z } from "zod";
import type { ProductSheet } from "#core/product/sheet";
import type { UnitPreferences } from "#core/units/quantities";
import { optionalQuantity, quantity, wholeNumber } from "./fields";

const MINUTE_S = 60;
const HOUR_S = 3600;

/** A product's sheet as typed. */
export const productForm = (units: UnitPreferences) =>
  z
    .object({
      name: z.string({ error: "Give the product a name" }).trim().min(1, "Give the product a name").max(80),
      kind: z.enum(["clear", "matte clear"]),
      ratio: z.string().trim().max(40).default(""),
      solids: quantity("share", units, { min: 0.05, max: 0.95 }),
      speed: z.enum(["fast", "medium", "slow"]),
      coats: wholeNumber(1, 8),
      filmMin: quantity("film", units, { min: 1e-6, max: 300e-6 }),
      filmMax: quantity("film", units, { min: 1e-6, max: 300e-6 }),
      flashMin: quantity("duration", units, { min: MINUTE_S, max: 24 * HOUR_S }),
      flashMax: quantity("duration", units, { min: MINUTE_S, max: 168 * HOUR_S }),
      potLife: quantity("duration", units, { min: MINUTE_S, max: 168 * HOUR_S }),
      sandAfter: quantity("duration", units, { min: MINUTE_S, max: 720 * HOUR_S }),
      floor: optionalQuantity("film", units, { min: 5e-6, max: 300e-6 }),
    })
    .transform((v): ProductSheet => ({
      name: v.name,
      kind: v.kind,
      ratio: v.ratio,
      volumeSolids: v.solids,
      speed: v.speed,
      coats: v.coats,
      filmPerCoatMin_m: v.filmMin,
      filmPerCoatMax_m: v.filmMax,
      flashMin_s: v.flashMin,
      flashMax_s: v.flashMax,
      potLife_s: v.potLife,
      sandAfter_s: v.sandAfter,
      floor_m: v.floor,
    }))
    .refine((s) => s.filmPerCoatMax_m >= s.filmPerCoatMin_m, { path: ["filmMax"], message: "The most must be at least the least" })
    .refine((s) => s.flashMax_s >= s.flashMin_s, { path: ["flashMax"], message: "The longest must be at least the shortest" });
