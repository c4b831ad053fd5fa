import { z } from "zod";
import { KEEPING, type Keeping } from "#core/models/product/container";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import { dayAtNoon, optionalQuantity, quantity } from "~/kit/form/fields";

const keys = Object.keys(KEEPING) as [Keeping, ...Keeping[]];
/** A can on the shelf as typed. */
export const canForm = (units: UnitPreferences) =>
  z.object({
    productId: z.string().default(""),
    batch: z.string().trim().max(40).default(""),
    size: optionalQuantity("volume", units, { min: 10e-6, max: 0.03 }),
    left: quantity("volume", units, { min: 0, max: 0.03 }),
    opened: dayAtNoon,
    keeping: z.enum(keys),
    gone: z.literal("on").optional(),
  });
