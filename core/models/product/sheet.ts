import type { z } from "zod";
import { requireNumber } from "../../kernel/guard";
import { cupReading } from "./flow-cup";
import { parseRatio } from "./ratio";
import { SHEET_K } from "./sheet-air";
import { COAT_KINDS } from "./kinds";
import type { anySheet, partSheet, productSheet } from "./sheet-schema";
import { arrhenius } from "../spray/viscosity";
import { BEYOND_LIMIT_K, EVAPORATION_ENERGY_J_MOL, type TimeAtTemperature, type TimePoint, timeAtTemperature } from "./time-at-temperature";

export type ProductSheet = z.infer<typeof productSheet>;
export type PartSheet = z.infer<typeof partSheet>;
export type AnySheet = z.infer<typeof anySheet>;
/** A sheet as it is typed or imported: whatever has a default may be left away. */
export type SheetInput = z.input<typeof anySheet>;

export const isCoat = (sheet: AnySheet): sheet is ProductSheet => (COAT_KINDS as readonly string[]).includes(sheet.kind);
/** What a panel is finished with: a clear, or a single stage that is colour and clear in one. */
export const isTopcoat = (sheet: AnySheet): sheet is ProductSheet => ["clear", "matte clear", "single stage"].includes(sheet.kind);

/** The flow model, set to clears, says how it flows; a filled primer stands where it lands. */
export const flowsAsClear = ({ kind }: Pick<AnySheet, "kind">): boolean => kind !== "primer";

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
/**
 * A flash told for 20 °C at another temperature: in the cold it grows as evaporation slows down (42 kJ/mol, docs/models.md "Flow"), by at most
 * 10 K; in the warmth it is never shorter. @throws RangeError
 */
export function evaporationTime(at20_s: number, temperature_K: number): number {
  const cold_K = Math.max(requireNumber("temperature_K", temperature_K, { min: 233, max: 473 }), SHEET_K - BEYOND_LIMIT_K);
  if (cold_K >= SHEET_K) return at20_s;
  return (at20_s * arrhenius(EVAPORATION_ENERGY_J_MOL, SHEET_K)) / arrhenius(EVAPORATION_ENERGY_J_MOL, cold_K);
}

/**
 * A flash time at a temperature. A sheet that names one temperature says nothing of the others: in the cold the wait grows as evaporation
 * slows down (42 kJ/mol, docs/models.md "Flow"), by at most 10 K; in the warmth it is never shorter than the sheet's.
 * @throws RangeError
 */
function flashAt(points: readonly TimePoint[], temperature_K: number): TimeAtTemperature {
  const found = timeAtTemperature(points, temperature_K);
  if (found.how !== "only point" || temperature_K >= SHEET_K) return found;
  const beyond = temperature_K < SHEET_K - BEYOND_LIMIT_K;
  return { time_s: evaporationTime(found.time_s, temperature_K), how: beyond ? "outside" : "by evaporation" };
}

/** Least flash at a temperature. @throws RangeError */
export const flashLeastAt = (s: ProductSheet, temperature_K: number): TimeAtTemperature => flashAt(flashPoints(s), temperature_K);

/** Above its one point a pot life halves in so many kelvin: common practice, 8 to 10. */
const POT_HALVES_K = 10;
/** Hotter than this above the sheet's one point nothing is told apart any more. */
const POT_FOLLOWED_K = 20;

/**
 * Pot life at a temperature. With one point of the sheet it halves for every 10 K above it (common practice, the safe direction), and is never longer
 * than the sheet's in the cold. @throws RangeError
 */
export function potLifeAt(s: ProductSheet, temperature_K: number): TimeAtTemperature {
  const found = timeAtTemperature(potLifePoints(s), temperature_K);
  const above_K = temperature_K - SHEET_K;
  if (found.how !== "only point" || above_K <= 0) return found;
  const time_s = found.time_s * 2 ** (-Math.min(POT_FOLLOWED_K, above_K) / POT_HALVES_K);
  return { time_s, how: above_K > POT_FOLLOWED_K ? "outside" : "by halving" };
}

/** Least and longest flash, and pot life, at a temperature, from the sheet's own points. @throws RangeError */
export function timesAt(s: ProductSheet, temperature_K: number): { flashMin_s: number; flashMax_s: number; potLife_s: number } {
  const flashMin_s = flashLeastAt(s, temperature_K).time_s;
  return {
    flashMin_s,
    flashMax_s: Math.max(flashMin_s, flashAt(flashMostPoints(s), temperature_K).time_s),
    potLife_s: potLifeAt(s, temperature_K).time_s,
  };
}

/** What a new sheet is refused for at the door, by field; a stored one may have it. */
export function sheetRefusals(s: AnySheet): { field: string; message: string }[] {
  const cup = isCoat(s) && s.viscosity !== null && cupReading(s.viscosity) === null;
  return [...sheetContradictions(s), ...(cup ? [{ field: "viscosity", message: NO_CUP_TIME }] : [])];
}
export const NO_CUP_TIME = "Nothing that is sprayed runs out of this cup in that time";

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
  if (s.overcoat) say(s.overcoat.max_s < s.overcoat.min_s, "overcoat", "The latest must be after the soonest");
  say(s.reducerMax < s.reducerMin, "reducerMax", "The most must be at least the least");
  const twice = (list: { temperature_K: number }[]) => new Set([SHEET_K, ...list.map((p) => p.temperature_K)]).size <= list.length;
  say(twice(s.potLifeAt), "potLifeAt", "Two pot lives at one temperature");
  say(twice(s.flashAt), "flashAt", "Two flash times at one temperature");
  return found;
}
