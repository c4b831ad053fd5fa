import { z } from "zod";
import { FLOW_CUP_IDS, cupReading } from "#core/models/product/flow-cup";
import { GUN_BOUNDS } from "#core/models/bounds";
import { ratioText, readRatio } from "#core/models/product/ratio";
import { NO_CUP_TIME, type SheetInput } from "#core/models/product/sheet";
import { keysOf } from "#core/kernel/keys";
import { SECOND_PARTS, type SecondPart } from "#core/models/product/roles";
import { CARRIERS, COAT_KINDS, PART_KINDS } from "#core/models/product/kinds";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import { optionalQuantity, quantity, wholeNumber } from "~/kit/form/fields";

/** A nozzle is named by its millimetres in every shop. */
const MM_M = 1e-3;
const MINUTE_S = 60;
const HOUR_S = 3600;
const DAY_S = 24 * HOUR_S;
/** Second temperature at which a form asks for pot life and flash. */
const WARM_K = 303.15;

const speed = z.enum(["fast", "medium", "slow"]);
const temperature = { min: 263.15, max: 363.15 };

const common = (units: UnitPreferences) => ({
  name: z.string({ error: "Give the product a name" }).trim().min(1, "Give the product a name").max(80),
  density: optionalQuantity("density", units, { min: 500, max: 3000 }),
  voc: optionalQuantity("concentration", units, { min: 0, max: 1500 }),
  water: optionalQuantity("share", units, { min: 0, max: 1 }),
  exempt: optionalQuantity("share", units, { min: 0, max: 1 }),
  exemptDensity: optionalQuantity("density", units, { min: 500, max: 3000 }),
  windowLow: optionalQuantity("temperature", units, temperature),
  windowHigh: optionalQuantity("temperature", units, temperature),
  keepsDays: optionalQuantity("count", units, { min: 1, max: 3650 }),
});
type Common = { [K in keyof ReturnType<typeof common>]: z.output<ReturnType<typeof common>[K]> };

const commonOut = (v: Common) => ({
  name: v.name,
  density_kg_m3: v.density,
  voc_kg_m3: v.voc,
  waterShare: v.water ?? 0,
  exemptShare: v.exempt ?? 0,
  exemptDensity_kg_m3: v.exemptDensity,
  window: v.windowLow !== null && v.windowHigh !== null ? { low_K: v.windowLow, high_K: v.windowHigh } : null,
  keepsDays: v.keepsDays,
});

/** Pairs of levels as typed: "60 = 28" a line or a comma apart; share of matting component in %, gloss at 60°. */
const levels = z
  .string()
  .default("")
  .transform((text, ctx) => {
    const rows = text
      .split(/[;\n]/)
      .map((r) => r.trim())
      .filter(Boolean);
    const parsed = rows.map((r) => /^(\d+(?:[.,]\d+)?)\s*%?\s*=\s*(\d+(?:[.,]\d+)?)$/.exec(r));
    const bad = parsed.findIndex((m) => !m || Number(m[1]!.replace(",", ".")) > 100 || Number(m[2]!.replace(",", ".")) <= 0);
    if (bad >= 0) {
      ctx.addIssue({ code: "custom", message: `"${rows[bad]}" is not a level; write 60 = 28 (per cent = GU), one a line` });
      return z.NEVER;
    }
    return parsed.map((m) => ({ share: Number(m![1]!.replace(",", ".")) / 100, gloss60_GU: Number(m![2]!.replace(",", ".")) }));
  });

/** A coat's sheet as typed. */
export const productForm = (units: UnitPreferences) =>
  z
    .object({
      ...common(units),
      kind: z.enum(COAT_KINDS),
      ratio: z
        .string()
        .trim()
        .max(40)
        .default("")
        .transform((t, ctx) => {
          const read = t === "" ? null : readRatio(t);
          if (read?.ok !== false) return read;
          ctx.addIssue({ code: "custom", message: read.message });
          return z.NEVER;
        }),
      reducerMin: optionalQuantity("share", units, { min: 0, max: 1 }),
      reducerMax: optionalQuantity("share", units, { min: 0, max: 1 }),
      solids: quantity("share", units, { min: 0.05, max: 0.95 }),
      speed,
      coats: wholeNumber(1, 8),
      filmMin: quantity("film", units, { min: 1e-6, max: 300e-6 }),
      filmMax: quantity("film", units, { min: 1e-6, max: 300e-6 }),
      flashMin: quantity("duration", units, { min: MINUTE_S, max: DAY_S }),
      flashMax: quantity("duration", units, { min: MINUTE_S, max: 7 * DAY_S }),
      flashWarm: optionalQuantity("duration", units, { min: MINUTE_S, max: DAY_S }),
      potLife: quantity("duration", units, { min: MINUTE_S, max: 7 * DAY_S }),
      potLifeWarm: optionalQuantity("duration", units, { min: MINUTE_S, max: 7 * DAY_S }),
      overcoatMin: optionalQuantity("duration", units, { min: MINUTE_S, max: 30 * DAY_S }),
      overcoatMax: optionalQuantity("duration", units, { min: MINUTE_S, max: 30 * DAY_S }),
      carrier: z.union([z.literal("").transform(() => null), z.enum(CARRIERS)]).default(null),
      nozzle: optionalQuantity("count", units, { min: 0.5, max: 4 }),
      gunPressure: optionalQuantity("pressure", units, GUN_BOUNDS.pressure_Pa),
      gunDistance: optionalQuantity("length", units, GUN_BOUNDS.distance_m),
      gunFan: optionalQuantity("length", units, GUN_BOUNDS.fan_m),
      sandAfter: quantity("duration", units, { min: MINUTE_S, max: 30 * DAY_S }),
      dustFree: optionalQuantity("duration", units, { min: MINUTE_S, max: 30 * DAY_S }),
      tape: optionalQuantity("duration", units, { min: MINUTE_S, max: 30 * DAY_S }),
      polish: optionalQuantity("duration", units, { min: MINUTE_S, max: 30 * DAY_S }),
      waxDays: optionalQuantity("count", units, { min: 1, max: 400 }),
      bakePart: optionalQuantity("temperature", units, temperature),
      bakeTime: optionalQuantity("duration", units, { min: MINUTE_S, max: DAY_S }),
      cup: z.union([z.literal("").transform(() => null), z.enum(FLOW_CUP_IDS)]).default(null),
      efflux: optionalQuantity("seconds", units, { min: 10, max: 200 }),
      levels,
      goesWith: z
        .union([
          z.array(z.string().max(80)).max(12),
          z
            .string()
            .max(80)
            .transform((n) => [n]),
        ])
        .default([]),
      secondPart: z.union([z.literal("").transform(() => null), z.enum(keysOf<SecondPart>(SECOND_PARTS))]).default(null),
      blendWith: z.string().trim().max(80).default(""),
      settles: optionalQuantity("duration", units, { min: MINUTE_S, max: DAY_S }),
      floor: optionalQuantity("film", units, { min: 5e-6, max: 300e-6 }),
    })
    .superRefine(({ ratio, reducerMin, reducerMax }, ctx) => {
      const said = ratio?.reducer;
      const differs = (typed: number | null, of: number) => typed !== null && Math.abs(typed - of) > 1e-9;
      if (said && (differs(reducerMin, said.min) || differs(reducerMax, said.max)))
        ctx.addIssue({ code: "custom", path: ["ratio"], message: "Its reducer is not the one typed beside it: leave one of the two out" });
    })
    .transform((v): SheetInput => ({
      ...commonOut(v),
      kind: v.kind,
      ratio: v.ratio ? ratioText(v.ratio.parts) : "",
      secondPart: v.secondPart,
      reducerMin: v.reducerMin ?? v.ratio?.reducer?.min ?? 0,
      reducerMax: v.reducerMax ?? v.ratio?.reducer?.max ?? v.reducerMin ?? 0,
      volumeSolids: v.solids,
      speed: v.speed,
      coats: v.coats,
      filmPerCoatMin_m: v.filmMin,
      filmPerCoatMax_m: v.filmMax,
      flashMin_s: v.flashMin,
      flashMax_s: v.flashMax,
      flashAt: v.flashWarm === null ? [] : [{ temperature_K: WARM_K, min_s: v.flashWarm, max_s: v.flashMax }],
      potLife_s: v.potLife,
      potLifeAt: v.potLifeWarm === null ? [] : [{ temperature_K: WARM_K, life_s: v.potLifeWarm }],
      overcoat: v.overcoatMin === null ? null : { min_s: v.overcoatMin, max_s: v.overcoatMax ?? Math.max(DAY_S, v.overcoatMin) },
      carrier: v.carrier,
      gun:
        v.nozzle === null && v.gunPressure === null && v.gunDistance === null && v.gunFan === null
          ? null
          : {
              nozzle_m: v.nozzle === null ? null : v.nozzle * MM_M,
              pressure_Pa: v.gunPressure,
              distance_m: v.gunDistance,
              fan_m: v.gunFan,
            },
      sandAfter_s: v.sandAfter,
      dustFree_s: v.dustFree,
      tape_s: v.tape,
      polish_s: v.polish,
      wax_s: v.waxDays === null ? null : v.waxDays * DAY_S,
      bake: v.bakePart !== null && v.bakeTime !== null ? { part_K: v.bakePart, time_s: v.bakeTime } : null,
      viscosity: v.cup !== null && v.efflux !== null ? { cup: v.cup, efflux_s: v.efflux, temperature_K: 293.15 } : null,
      levels: v.levels,
      goesWith: v.goesWith,
      blendWith: v.blendWith,
      settles_s: v.settles,
      floor_m: v.floor,
    }))
    .superRefine((s, ctx) => {
      if (!("coats" in s)) return;
      const say = (path: string, message: string) => ctx.addIssue({ code: "custom", path: [path], message });
      if (s.viscosity && cupReading(s.viscosity) === null) say("efflux", NO_CUP_TIME);
      if (s.filmPerCoatMax_m < s.filmPerCoatMin_m) say("filmMax", "The most must be at least the least");
      if (s.overcoat && s.overcoat.max_s < s.overcoat.min_s) say("overcoatMax", "The latest must be after the soonest");
      if (s.flashMax_s < s.flashMin_s) say("flashMax", "The longest must be at least the shortest");
      if ((s.reducerMax ?? 0) < (s.reducerMin ?? 0)) say("reducerMax", "The most must be at least the least");
    });

/** What only goes into a mix, as typed. */
export const partForm = (units: UnitPreferences) =>
  z
    .object({ ...common(units), kind: z.enum(PART_KINDS), speed: z.union([z.literal("").transform(() => null), speed]).default(null) })
    .transform((v): SheetInput => ({ ...commonOut(v), kind: v.kind, speed: v.speed }));
