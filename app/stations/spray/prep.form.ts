import { z } from "zod";
import { PREFLIGHT_IDS } from "#core/models/prep/preflight-ids";
import { UNDER_STEP_IDS } from "#core/models/prep/under-clear";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import type { ProductSheet } from "#core/models/product/sheet";
import { readBake } from "./bake.form";
import { checkedBy, optionalQuantity, quantity } from "~/kit/form/fields";
import { GUN_LIMITS } from "~/kit/form/gun-limits";

const optionalWhole = (min: number, max: number) =>
  z
    .union([
      z.literal("").transform(() => null),
      z.coerce.number({ error: "Type a whole number" }).int("A whole number").min(min, `At least ${min}`).max(max, `At most ${max}`),
    ])
    .optional()
    .transform((v) => v ?? null);

/** One step below the clear as typed; what the step does not ask for stays away. */
export const underForm = (units: UnitPreferences) =>
  z
    .object({
      step: z.enum(UNDER_STEP_IDS),
      grit: optionalWhole(60, 5000),
      coats: optionalWhole(1, 12),
      film: optionalQuantity("film", units, { min: 1e-6, max: 500e-6 }),
      pressure: optionalQuantity("pressure", units, GUN_LIMITS.pressure),
      reach: optionalQuantity("length", units, { min: 0, max: 6 }),
      note: z.string().trim().max(200).default(""),
    })
    .transform((v) => ({
      step: v.step,
      grit: v.grit,
      coats: v.coats,
      film_m: v.film,
      pressure_Pa: v.pressure,
      reach_m: v.reach,
      note: v.note,
    }));

export const preflightForm = z.object({
  ticks: z
    .union([z.enum(PREFLIGHT_IDS), z.array(z.enum(PREFLIGHT_IDS))])
    .optional()
    .transform((v) => (v === undefined ? [] : Array.isArray(v) ? v : [v])),
});

export const wetCombForm = (units: UnitPreferences) =>
  z.object({
    panelId: z.string().min(1),
    number: z.coerce.number().int().min(1).max(20),
    wet: quantity("film", units, { min: 5e-6, max: 1e-3 }),
  });

/** A bake as it was set, for the probe on the part. */
export const bakeForm = (units: UnitPreferences, sheet: Pick<ProductSheet, "bake">) => checkedBy((typed) => readBake(typed, units, sheet));
