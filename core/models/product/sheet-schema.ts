import { z } from "zod";
import { FLOW_CUP_IDS } from "./flow-cup";
import { GUN_BOUNDS } from "../bounds";
import { CARRIERS, COAT_KINDS, PART_KINDS } from "./kinds";

const temperature_K = z.number().min(253).max(373);
const span_s = z
  .number()
  .positive()
  .max(30 * 86400);
const share = z.number().min(0).max(1);

/** Figures that any tin may carry. Missing is null: nothing is guessed. */
const common = {
  name: z.string().trim().min(1, "Give the product a name").max(80),
  density_kg_m3: z.number().min(500, "Below 0.5 g/ml is no paint").max(3000, "Above 3 g/ml is no paint").nullable().default(null),
  /** Organic solvent that leaves, per volume as supplied; water and exempt solvent by mass beside it. */
  voc_kg_m3: z.number().min(0).max(1500).nullable().default(null),
  waterShare: share.default(0),
  exemptShare: share.default(0),
  exemptDensity_kg_m3: z.number().min(500).max(3000).nullable().default(null),
  viscosity: z
    .object({ cup: z.enum(FLOW_CUP_IDS), efflux_s: z.number().min(10).max(200), temperature_K })
    .nullable()
    .default(null),
  /** Temperatures at which it may be used, by its own speed. */
  window: z.object({ low_K: temperature_K, high_K: temperature_K }).nullable().default(null),
  /** Days an opened tin keeps; null: the usual for how it is kept. */
  keepsDays: z.number().positive().max(3650).nullable().default(null),
  /** Its figures are usual ones, typed from nobody's sheet: they stand until the product's own sheet takes their place. */
  usual: z.literal(true).optional(),
};

/** A coat's data sheet in SI. Every figure is the shop's entry from the sheet it holds; none is built in. */
export const productSheet = z.object({
  ...common,
  kind: z.enum(COAT_KINDS),
  /** By volume, as on the can ("2:1"); checked when a sheet is saved. */
  ratio: z.string().trim().max(40).default(""),
  /** What stands second in the ratio; null: as usual for its kind. */
  secondPart: z.enum(["hardener", "reducer"]).nullable().default(null),
  /** Reducer the sheet allows, as a share of the activated mix. */
  reducerMin: share.default(0),
  reducerMax: share.default(0),
  /** Solids by volume of the activated mix, share. */
  volumeSolids: z.number().min(0.05).max(0.95),
  speed: z.enum(["fast", "medium", "slow"]),
  coats: z.int().min(1).max(8),
  filmPerCoatMin_m: z.number().positive().max(300e-6),
  filmPerCoatMax_m: z.number().positive().max(300e-6),
  /** At 20 °C; further temperatures of the sheet stand in `flashAt` and `potLifeAt`. */
  flashMin_s: z.number().positive().max(86400),
  flashMax_s: z
    .number()
    .positive()
    .max(7 * 86400),
  flashAt: z
    .array(z.object({ temperature_K, min_s: span_s, max_s: span_s }))
    .max(6)
    .default([]),
  potLife_s: z
    .number()
    .positive()
    .max(7 * 86400),
  potLifeAt: z
    .array(z.object({ temperature_K, life_s: span_s }))
    .max(6)
    .default([]),
  /** At 20 °C: until another product goes on it, and when it must be scuffed first; null: the sheet does not say. */
  overcoat: z.object({ min_s: span_s, max_s: span_s }).nullable().default(null),
  /** What its solvent is, where that decides cleaners and drying; null: not said. */
  carrier: z.enum(CARRIERS).nullable().default(null),
  /** The gun that the sheet asks for; null: it does not. */
  gun: z
    .object({
      nozzle_m: z.number().min(0.5e-3, "No nozzle is under 0.5 mm").max(4e-3, "No nozzle is over 4 mm").nullable().default(null),
      pressure_Pa: z.number().min(GUN_BOUNDS.pressure_Pa.min).max(GUN_BOUNDS.pressure_Pa.max).nullable().default(null),
      distance_m: z.number().min(GUN_BOUNDS.distance_m.min).max(GUN_BOUNDS.distance_m.max).nullable().default(null),
      fan_m: z.number().min(GUN_BOUNDS.fan_m.min).max(GUN_BOUNDS.fan_m.max).nullable().default(null),
    })
    .nullable()
    .default(null),
  /** Air-dried at 20 °C before it may be sanded. */
  sandAfter_s: span_s,
  /** Further points at 20 °C, and the bake after which it may be sanded. */
  dustFree_s: span_s.nullable().default(null),
  tape_s: span_s.nullable().default(null),
  polish_s: span_s.nullable().default(null),
  wax_s: z
    .number()
    .positive()
    .max(400 * 86400)
    .nullable()
    .default(null),
  bake: z.object({ part_K: temperature_K, time_s: span_s }).nullable().default(null),
  /** Least clear to keep by the sheet; null: the shop's own floor. */
  floor_m: z.number().positive().max(300e-6).nullable(),
  /** Hardeners, reducers and additives that it is mixed with, by name; none: any of the shelf. */
  goesWith: z.array(z.string().trim().min(1).max(80)).max(12).default([]),
  /** What a matte product is blended with for its gloss, by name: a gloss clear, or a matting agent; empty: nothing. */
  blendWith: z.string().trim().max(80).default(""),
  /** A pearl or metallic settles in the pot so long after it was stirred; null: it does not. */
  settles_s: z.number().min(60).max(86_400).nullable().default(null),
  /** A matte product's own levels: share of matting component by weight and gloss at 60°. */
  levels: z
    .array(z.object({ share, gloss60_GU: z.number().positive().max(100) }))
    .max(12)
    .default([]),
});
/** What only goes into a mix. */
export const partSheet = z.object({
  ...common,
  kind: z.enum(PART_KINDS),
  speed: z.enum(["fast", "medium", "slow"]).nullable().default(null),
});
export const anySheet = z.union([productSheet, partSheet]);
