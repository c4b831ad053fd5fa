import { z } from "zod";
import type { UnitPreferences } from "#core/units/quantities";
import { optionalQuantity, quantity } from "./fields";
import { GUN_LIMITS } from "./spray-forms";

/** Settings and climate of a coat about to be sprayed, as typed. */
export const flowForm = (units: UnitPreferences) =>
  z.object({
    fluid: quantity("fluidRate", units, { min: 60e-6 / 60, max: 900e-6 / 60 }),
    pressure: quantity("pressure", units, GUN_LIMITS.pressure),
    distance: quantity("length", units, { min: 0.08, max: 0.35 }),
    speed: quantity("speed", units, GUN_LIMITS.handSpeed),
    overlap: quantity("share", units, GUN_LIMITS.overlap),
    air: quantity("temperature", units, { min: 278.15, max: 313.15 }),
    material: optionalQuantity("temperature", units, { min: 278.15, max: 323.15 }),
    reducer: quantity("share", units, GUN_LIMITS.reducer),
    flash: quantity("duration", units, { min: 0, max: 7200 }),
  });
export type FlowTyped = Record<keyof z.output<ReturnType<typeof flowForm>>, string>;
