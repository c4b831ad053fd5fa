import { requireNumber } from "../../kernel/guard";
import type { ProductSheet } from "./sheet";

/** Times of a sheet hold at half-saturated air: ISO 3270 (standard climate 23 °C, 50 %; from memory). */
const SHEET_HUMIDITY = 0.5;
/** In air damper than this nothing is told apart any more. */
const FOLLOWED_HUMIDITY = 0.95;

/**
 * How much longer a coat dries in damp air than its sheet says: water leaves in proportion to what the air still takes up, 1 − φ (evaporation by
 * vapour-pressure deficit, textbook); solvent does not ask. Never shorter than the sheet.
 * @param relativeHumidity share; null: nobody read it @throws RangeError @example 0.75 for a water-borne base: 2
 */
export function humidFactor({ carrier }: Pick<ProductSheet, "carrier">, relativeHumidity: number | null): number {
  if (carrier !== "water" || relativeHumidity === null) return 1;
  const damp = Math.min(FOLLOWED_HUMIDITY, requireNumber("relativeHumidity", relativeHumidity, { above: 0, max: 1 }));
  return Math.max(1, (1 - SHEET_HUMIDITY) / (1 - damp));
}

/** The sheet as it dries in this air. @throws RangeError */
export function dryingIn(sheet: ProductSheet, relativeHumidity: number | null): ProductSheet {
  const f = humidFactor(sheet, relativeHumidity);
  if (f === 1) return sheet;
  return {
    ...sheet,
    flashMin_s: f * sheet.flashMin_s,
    flashMax_s: f * sheet.flashMax_s,
    flashAt: sheet.flashAt.map((p) => ({ ...p, min_s: f * p.min_s, max_s: f * p.max_s })),
    overcoat: sheet.overcoat && { min_s: f * sheet.overcoat.min_s, max_s: Math.max(sheet.overcoat.max_s, f * sheet.overcoat.min_s) },
  };
}
