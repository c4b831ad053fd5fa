import { z } from "zod";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import { quantity } from "~/kit/form/fields";

/** What a shop says of itself first; whatever is left as it stands may be said later under House. */
export const firstShopForm = (units: UnitPreferences) =>
  z.object({
    name: z.string().trim().min(1, "Give the shop a name").max(80),
    region: z.enum(["british", "american"]),
    floor: quantity("film", units, { min: 5e-6, max: 200e-6 }),
    wayId: z.string().min(1).max(80),
  });
