import { z } from "zod";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import { PREFLIGHT_IDS } from "#core/models/prep/preflight-ids";
import { optionalQuantity } from "~/kit/form/fields";
import { GUN_LIMITS } from "~/kit/form/gun-limits";

/** One field, sent once or several times. */
const several = <S extends z.ZodType<unknown, string>>(one: S) =>
  z
    .union([one.transform((v) => [v]), z.array(one)])
    .optional()
    .transform((v): z.output<S>[] => (v ?? []) as z.output<S>[]);

/** At which step, and which further panels go along. */
export const togetherFields = { step: z.string().min(1).max(80), panels: several(z.string().min(1).max(80)) };

/** A coat as planned, or with what was set otherwise; empty is as planned. */
export const coatOnForm = (units: UnitPreferences) =>
  z.object({
    ...togetherFields,
    handSpeed: optionalQuantity("speed", units, GUN_LIMITS.handSpeed),
    turns: optionalQuantity("count", units, GUN_LIMITS.turns),
    fluidRate: optionalQuantity("fluidRate", units, GUN_LIMITS.fluidRate),
  });

export const preparedForm = z.object({ ...togetherFields, ticks: several(z.enum(PREFLIGHT_IDS)) });

export const mixInForm = (units: UnitPreferences) =>
  z.object({ ...togetherFields, volume: optionalQuantity("volume", units, { min: 10e-6, max: 0.02 }) });
