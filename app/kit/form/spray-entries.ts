import { CLIMATE_BOUNDS } from "#core/models/bounds";
import { tooHot } from "#core/models/cure/bake-plan";
import type { ProductSheet } from "#core/models/product/sheet";
import { tooHotWords } from "../words/too-hot";
import { z } from "zod";
import { PART_HELD, type PartHeld, SIDES } from "#core/record/kinds";
import { keysOf } from "#core/kernel/keys";
import { COAT_ZONE_KEYS, FLATTEN_BY, type FlattenBy } from "#core/models/ways/terms";
import { PRESSURE_AT, type PressureAt, pressureAtGun } from "#core/models/spray/pressure-at";
import { GUN_LIMITS } from "~/kit/form/gun-limits";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import { fluidFromTurns } from "#core/models/spray/fluid-from-turns";
import { byUnits } from "~/kit/form/by-units";
import { optionalQuantity, quantity, wholeNumber } from "~/kit/form/fields";

export const coatForm = byUnits((units) =>
  z
    .object({
      number: wholeNumber(1, 20),
      role: z.string().trim().max(40).default(""),
      fluidFrom: z.enum(["measured", "turns"]),
      fluidRate: optionalQuantity("fluidRate", units, GUN_LIMITS.fluidRate),
      turns: optionalQuantity("count", units, GUN_LIMITS.turns),
      pressure: quantity("pressure", units, GUN_LIMITS.pressureRead),
      pressureAt: z.enum(keysOf<PressureAt>(PRESSURE_AT)).default("gun"),
      distance: quantity("length", units, GUN_LIMITS.distance),
      overlap: quantity("share", units, GUN_LIMITS.overlap),
      handSpeed: quantity("speed", units, GUN_LIMITS.handSpeed),
      fan: optionalQuantity("length", units, GUN_LIMITS.fan),
      reducer: quantity("share", units, GUN_LIMITS.reducer),
      wet: optionalQuantity("film", units, { min: 0, max: 1e-3 }),
      zone: z.enum(COAT_ZONE_KEYS).optional(),
    })
    .transform((v, ctx) => {
      const fluidRate_m3_s = v.fluidFrom === "measured" ? v.fluidRate : v.turns === null ? null : fluidFromTurns(v.turns).fluidRate_m3_s;
      if (fluidRate_m3_s === null) {
        ctx.addIssue({ code: "custom", path: [v.fluidFrom === "measured" ? "fluidRate" : "turns"], message: "Type a number" });
        return z.NEVER;
      }
      const { min, max } = GUN_LIMITS.pressure;
      const pressure_Pa = pressureAtGun(v.pressure, v.pressureAt);
      if (pressure_Pa < min || pressure_Pa > max) {
        ctx.addIssue({ code: "custom", path: ["pressure"], message: "No gun is worked at that pressure: is it told at the hose?" });
        return z.NEVER;
      }
      return {
        number: v.number,
        role: v.role,
        settings: {
          fluidRate_m3_s,
          fluidFrom: v.fluidFrom,
          turns: v.fluidFrom === "turns" ? v.turns : null,
          pressure_Pa,
          ...(v.pressureAt === "hose" ? { pressureAt: v.pressureAt } : {}),
          distance_m: v.distance,
          overlap: v.overlap,
          handSpeed_m_s: v.handSpeed,
          fan_m: v.fan,
        },
        reducer: v.reducer,
        wetReading_m: v.wet,
        ...(v.zone ? { zone: v.zone } : {}),
      };
    }),
);

export const climateForm = byUnits((units) =>
  z
    .object({
      air: quantity("temperature", units, CLIMATE_BOUNDS.air_K),
      part: optionalQuantity("temperature", units, CLIMATE_BOUNDS.part_K),
      humidity: quantity("share", units, { min: 0.05, max: 1 }),
      material: optionalQuantity("temperature", units, CLIMATE_BOUNDS.material_K),
    })
    .transform((v) => ({ air_K: v.air, part_K: v.part, relativeHumidity: v.humidity, material_K: v.material })),
);

export const mixForm = byUnits((units) =>
  z
    .object({ volume: quantity("volume", units, { min: 10e-6, max: 0.02 }), reducer: quantity("share", units, GUN_LIMITS.reducer) })
    .transform((v) => ({ volume_m3: v.volume, reducer: v.reducer })),
);

/** Sanded flat: the paper, by machine or hand, and what came off where somebody measured it. */
export const flattenForm = (units: UnitPreferences) =>
  z.object({
    grit: wholeNumber(400, 5000),
    by: z.enum(keysOf<FlattenBy>(FLATTEN_BY)),
    removal: z.union([z.literal("").transform(() => null), quantity("film", units, { min: 0, max: 300e-6 })]),
  });

/** Baked, and off again. */
export const bakedForm = (units: UnitPreferences, sheet: Pick<ProductSheet, "bake">) =>
  z.object({
    part: quantity("temperature", units, { min: 303.15, max: 393.15 }).refine((part_K) => !tooHot(sheet, part_K), {
      error: tooHotWords(sheet, units),
    }),
    time: quantity("duration", units, { min: 60, max: 24 * 3600 }),
  });

/** How the part lies from now on, and which face is up. */
export const turnForm = z.object({ how: z.enum(keysOf<PartHeld>(PART_HELD)), side: z.enum(SIDES) });

/** Which face a coat went on, and where on it. */
export const coatPlaceForm = z.object({ side: z.enum(SIDES), zone: z.enum(COAT_ZONE_KEYS) });
