import type { UnitPreferences } from "#core/kernel/units/quantities";
import { readTyped } from "~/kit/form/read-typed";

/** A bake as it is typed. */
export const readBake = (typed: Record<string, unknown>, units: UnitPreferences) =>
  readTyped(typed, units, (r) => ({
    room: r.quantity("room", "temperature", { min: 278.15, max: 313.15 }),
    air: r.quantity("air", "temperature", { min: 298.15, max: 358.15 }),
    purge: r.quantity("purge", "duration", { min: 0, max: 7200 }),
    ramp: r.quantity("ramp", "duration", { min: 60, max: 7200 }),
    hold: r.quantity("hold", "duration", { min: 60, max: 14400 }),
  }));
