import { z } from "zod";
import type { UnitPreferences } from "#core/units/quantities";
import { fluidFromTurns } from "#core/spray/fluid-from-turns";
import { optionalQuantity, quantity, wholeNumber } from "./fields";

/** Limits of what may be typed: the deposition model's own. */
export const GUN_LIMITS = {
  fluidRate: { min: 10e-6 / 60, max: 1000e-6 / 60 },
  turns: { min: 0.1, max: 10 },
  pressure: { min: 0.3e5, max: 6e5 },
  distance: { min: 0.05, max: 0.5 },
  overlap: { min: 0, max: 0.9 },
  handSpeed: { min: 0.05, max: 3 },
  fan: { min: 0.01, max: 1 },
  reducer: { min: 0, max: 1 },
} as const;

export const coatForm = (units: UnitPreferences) =>
  z
    .object({
      number: wholeNumber(1, 20),
      role: z.string().trim().max(40).default(""),
      fluidFrom: z.enum(["measured", "turns"]),
      fluidRate: optionalQuantity("fluidRate", units, GUN_LIMITS.fluidRate),
      turns: optionalQuantity("count", units, GUN_LIMITS.turns),
      pressure: quantity("pressure", units, GUN_LIMITS.pressure),
      distance: quantity("length", units, GUN_LIMITS.distance),
      overlap: quantity("share", units, GUN_LIMITS.overlap),
      handSpeed: quantity("speed", units, GUN_LIMITS.handSpeed),
      fan: optionalQuantity("length", units, GUN_LIMITS.fan),
      reducer: quantity("share", units, GUN_LIMITS.reducer),
      wet: optionalQuantity("film", units, { min: 0, max: 1e-3 }),
    })
    .transform((v, ctx) => {
      const fluidRate_m3_s = v.fluidFrom === "measured" ? v.fluidRate : v.turns === null ? null : fluidFromTurns(v.turns).fluidRate_m3_s;
      if (fluidRate_m3_s === null) {
        ctx.addIssue({ code: "custom", path: [v.fluidFrom === "measured" ? "fluidRate" : "turns"], message: "Type a number" });
        return z.NEVER;
      }
      return {
        number: v.number,
        role: v.role,
        settings: {
          fluidRate_m3_s,
          fluidFrom: v.fluidFrom,
          turns: v.fluidFrom === "turns" ? v.turns : null,
          pressure_Pa: v.pressure,
          distance_m: v.distance,
          overlap: v.overlap,
          handSpeed_m_s: v.handSpeed,
          fan_m: v.fan,
        },
        reducer: v.reducer,
        wetReading_m: v.wet,
      };
    });

export const climateForm = (units: UnitPreferences) =>
  z
    .object({
      air: quantity("temperature", units, { min: 273.15, max: 323.15 }),
      part: optionalQuantity("temperature", units, { min: 260, max: 373 }),
      humidity: quantity("share", units, { min: 0.05, max: 1 }),
      material: optionalQuantity("temperature", units, { min: 260, max: 333 }),
    })
    .transform((v) => ({ air_K: v.air, part_K: v.part, relativeHumidity: v.humidity, material_K: v.material }));

export const mixForm = (units: UnitPreferences) =>
  z
    .object({ volume: quantity("volume", units, { min: 10e-6, max: 0.02 }), reducer: quantity("share", units, GUN_LIMITS.reducer) })
    .transform((v) => ({ volume_m3: v.volume, reducer: v.reducer }));
