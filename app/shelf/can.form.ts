import { parse } from "date-fns";
import { z } from "zod";
import { KEEPING, type Keeping } from "#core/models/product/container";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import { optionalQuantity, quantity } from "~/kit/form/fields";

const keys = Object.keys(KEEPING) as [Keeping, ...Keeping[]];
/** A day as a date field sends it, noon of that day so that no time zone moves it; nothing typed is not opened yet. */
const day = z
  .string()
  .default("")
  .transform((t, ctx) => {
    if (t === "") return null;
    const at = parse(`${t} 12:00`, "yyyy-MM-dd HH:mm", new Date(0)).getTime();
    if (Number.isFinite(at)) return at;
    ctx.addIssue({ code: "custom", message: "Type the day as year-month-day" });
    return z.NEVER;
  });

/** A can on the shelf as typed. */
export const canForm = (units: UnitPreferences) =>
  z.object({
    productId: z.string().default(""),
    batch: z.string().trim().max(40).default(""),
    size: optionalQuantity("volume", units, { min: 10e-6, max: 0.03 }),
    left: quantity("volume", units, { min: 0, max: 0.03 }),
    opened: day,
    keeping: z.enum(keys),
    version: z.coerce.number().int().min(0).default(0),
    gone: z.literal("on").optional(),
  });
