import { z } from "zod";
import { FLOW_CUP_IDS } from "../mix/flow-cup";
import { parseRatio } from "../mix/ratio";
import { type TimePoint, timeAtTemperature } from "./time-at-temperature";

/** Kinds that are sprayed as a coat, and kinds that only go into a mix. */
export const COAT_KINDS = ["clear", "matte clear", "sealer", "primer", "base", "blender"] as const;
export const PART_KINDS = ["hardener", "reducer", "matting agent", "additive"] as const;
export type ProductKind = (typeof COAT_KINDS)[number] | (typeof PART_KINDS)[number];

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
};

/** A coat's data sheet in SI. Every figure is the shop's entry from the sheet it holds; none is built in. */
export const productSheet = z.object({
  ...common,
  kind: z.enum(COAT_KINDS),
  /** By volume, as on the can ("2:1"); checked when a sheet is saved. */
  ratio: z.string().trim().max(40).default(""),
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
  /** A matte product's own levels: share of matting component by weight and gloss at 60°. */
  levels: z
    .array(z.object({ share, gloss60_GU: z.number().positive().max(100) }))
    .max(12)
    .default([]),
});
export type ProductSheet = z.infer<typeof productSheet>;

/** What only goes into a mix. */
export const partSheet = z.object({
  ...common,
  kind: z.enum(PART_KINDS),
  speed: z.enum(["fast", "medium", "slow"]).nullable().default(null),
});
export type PartSheet = z.infer<typeof partSheet>;

export const anySheet = z.union([productSheet, partSheet]);
export type AnySheet = z.infer<typeof anySheet>;
/** A sheet as it is typed or imported: whatever has a default may be left away. */
export type SheetInput = z.input<typeof anySheet>;

export const isCoat = (sheet: AnySheet): sheet is ProductSheet => (COAT_KINDS as readonly string[]).includes(sheet.kind);
export const isClear = (sheet: AnySheet): sheet is ProductSheet => sheet.kind === "clear" || sheet.kind === "matte clear";

/** Temperature at which a sheet's plain times hold. */
export const SHEET_K = 293.15;
/** A sheet's pot life and least flash as points against temperature. */
export const potLifePoints = (s: ProductSheet): TimePoint[] => [
  { temperature_K: SHEET_K, time_s: s.potLife_s },
  ...s.potLifeAt.map((p) => ({ temperature_K: p.temperature_K, time_s: p.life_s })),
];
export const flashPoints = (s: ProductSheet): TimePoint[] => [
  { temperature_K: SHEET_K, time_s: s.flashMin_s },
  ...s.flashAt.map((p) => ({ temperature_K: p.temperature_K, time_s: p.min_s })),
];

export const flashMostPoints = (s: ProductSheet): TimePoint[] => [
  { temperature_K: SHEET_K, time_s: s.flashMax_s },
  ...s.flashAt.map((p) => ({ temperature_K: p.temperature_K, time_s: p.max_s })),
];
/** Least and longest flash, and pot life, at a temperature, from the sheet's own points. @throws RangeError */
export function timesAt(s: ProductSheet, temperature_K: number): { flashMin_s: number; flashMax_s: number; potLife_s: number } {
  const at = (points: TimePoint[]) => timeAtTemperature(points, temperature_K).time_s;
  const flashMin_s = at(flashPoints(s));
  return { flashMin_s, flashMax_s: Math.max(flashMin_s, at(flashMostPoints(s))), potLife_s: at(potLifePoints(s)) };
}

/** What contradicts itself in a sheet, by field; empty when nothing does. */
export function sheetContradictions(s: AnySheet): { field: string; message: string }[] {
  const found: { field: string; message: string }[] = [];
  const say = (when: boolean, field: string, message: string) => when && found.push({ field, message });
  if (s.window) say(s.window.high_K <= s.window.low_K, "window", "The warmest must be above the coldest");
  say(s.waterShare + s.exemptShare > 1, "waterShare", "Water and exempt solvent together cannot be more than the whole");
  say(s.exemptShare > 0 && s.exemptDensity_kg_m3 === null, "exemptDensity_kg_m3", "With exempt solvent its density is needed");
  if (!isCoat(s)) return found;
  say(s.ratio !== "" && !parseRatio(s.ratio).ok, "ratio", "Write the ratio as 2:1 or 3:1:1");
  say(s.filmPerCoatMax_m < s.filmPerCoatMin_m, "filmPerCoatMax_m", "The most must be at least the least");
  say(s.flashMax_s < s.flashMin_s, "flashMax_s", "The longest flash must be at least the shortest");
  say(s.reducerMax < s.reducerMin, "reducerMax", "The most must be at least the least");
  const twice = (list: { temperature_K: number }[]) => new Set([SHEET_K, ...list.map((p) => p.temperature_K)]).size <= list.length;
  say(twice(s.potLifeAt), "potLifeAt", "Two pot lives at one temperature");
  say(twice(s.flashAt), "flashAt", "Two flash times at one temperature");
  return found;
}
