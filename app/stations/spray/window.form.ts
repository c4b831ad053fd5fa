import type { UnitPreferences } from "#core/kernel/units/quantities";
import { GUN_LIMITS } from "~/kit/form/gun-limits";
import { readTyped } from "~/kit/form/read-typed";

/** Settings and climate of a coat about to be sprayed, as typed. */
export const readFlow = (typed: Record<string, unknown>, units: UnitPreferences) =>
  readTyped(typed, units, (r) => ({
    fluid: r.quantity("fluid", "fluidRate", { min: 60e-6 / 60, max: 900e-6 / 60 }),
    pressure: r.quantity("pressure", "pressure", GUN_LIMITS.pressure),
    distance: r.quantity("distance", "length", { min: 0.08, max: 0.35 }),
    speed: r.quantity("speed", "speed", GUN_LIMITS.handSpeed),
    overlap: r.quantity("overlap", "share", GUN_LIMITS.overlap),
    air: r.quantity("air", "temperature", { min: 278.15, max: 313.15 }),
    material: r.optional("material", "temperature", { min: 278.15, max: 323.15 }),
    reducer: r.quantity("reducer", "share", GUN_LIMITS.reducer),
    flash: r.quantity("flash", "duration", { min: 0, max: 7200 }),
  }));
type Flow = Extract<ReturnType<typeof readFlow>, { success: true }>["data"];
export type FlowTyped = Record<keyof Flow, string>;
