import { format } from "date-fns";
import { z } from "zod";
import { KEEPING, type Keeping } from "#core/models/product/container";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import type { Container } from "#server/repos/container-repo";
import type { ShownField } from "~/kit/form/answer";
import { dayAtNoon, optionalQuantity, quantity } from "~/kit/form/fields";
import { initial } from "~/kit/form/initial";

const keys = Object.keys(KEEPING) as [Keeping, ...Keeping[]];
/** A can as its form starts, field by field. */
export const canTexts = (can: Pick<Container, "batch" | "left_m3" | "opened_ms" | "keeping">, units: UnitPreferences) => ({
  batch: can.batch,
  left: initial("volume", can.left_m3, units),
  opened: can.opened_ms === null ? "" : format(can.opened_ms, "yyyy-MM-dd"),
  keeping: can.keeping as string,
});

/** The same of what stands there now, after another window. */
export const canShown = (there: Container, units: UnitPreferences): Record<string, ShownField> => ({
  ...canTexts(there, units),
  keeping: { value: there.keeping, said: KEEPING[there.keeping].name },
});

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
