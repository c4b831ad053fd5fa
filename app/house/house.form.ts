import { z } from "zod";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import { amount, quantity, wholeNumber } from "~/kit/form/fields";

/** The shop's settings as typed. */
export const houseForm = (units: UnitPreferences) =>
  z.object({
    name: z.string({ error: "Give the shop a name" }).trim().min(1, "Give the shop a name").max(80),
    wayId: z.string().min(1).max(80),
    region: z.enum(["british", "american"]).optional(),
    floor: quantity("film", units, { min: 5e-6, max: 200e-6 }),
    readingsPerSpot: wholeNumber(1, 5),
    airChanges: z
      .string()
      .default("")
      .transform((t, c) => {
        const typed = t.trim().replace(",", ".");
        if (typed === "") return null;
        const value = Number(typed);
        if (value >= 0.5 && value <= 500) return value;
        c.addIssue({ code: "custom", message: "Between 0.5 and 500 times an hour, or empty" });
        return z.NEVER;
      }),
    labourPerHour: amount(10_000),
    rejected: amount(1e6),
    waitingPerDay: amount(1e5),
  });
