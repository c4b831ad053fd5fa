import { z } from "zod";
import { PART_HELD, SIDES } from "#core/record/kinds";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import { quantity, wholeNumber } from "~/kit/form/fields";

const held = Object.keys(PART_HELD) as [keyof typeof PART_HELD, ...(keyof typeof PART_HELD)[]];

/** Sanded flat: the paper, by machine or hand, and what came off where somebody measured it. */
export const flattenForm = (units: UnitPreferences) =>
  z.object({
    grit: wholeNumber(400, 5000),
    by: z.enum(["machine", "hand"]),
    removal: z.union([z.literal("").transform(() => null), quantity("film", units, { min: 0, max: 300e-6 })]),
  });

/** Baked, and off again. */
export const bakedForm = (units: UnitPreferences) =>
  z.object({
    part: quantity("temperature", units, { min: 303.15, max: 393.15 }),
    time: quantity("duration", units, { min: 60, max: 24 * 3600 }),
  });

/** How the part lies from now on, and which face is up. */
export const turnForm = z.object({ how: z.enum(held), side: z.enum(SIDES) });
