import { fromSi } from "./convert";
import { type Quantity, type UnitPreferences, preferredUnit } from "./quantities";

/** Units that sentences are written in, with what they are in SI; K is a difference of temperature. */
const WRITTEN: Record<string, { quantity: Quantity; scale: number; offset?: number }> = {
  µm: { quantity: "film", scale: 1e-6 },
  mm: { quantity: "length", scale: 1e-3 },
  cm: { quantity: "length", scale: 1e-2 },
  m: { quantity: "length", scale: 1 },
  "°C": { quantity: "temperature", scale: 1, offset: 273.15 },
  K: { quantity: "temperatureDifference", scale: 1 },
};
const NUMBER = String.raw`\d+(?:\.\d+)?`;
const FIGURE = new RegExp(String.raw`(${NUMBER})((?: to | × | and | ± )(${NUMBER}))? (µm|mm|cm|m|°C|K)(?![\p{L}\d²³/])`, "gu");

/** As exact as the sentence was: two figures, whole degrees. */
function rounded(value: number, quantity: Quantity): string {
  if (quantity === "temperature" || quantity === "temperatureDifference") return value.toFixed(0);
  const digits = Math.max(0, 1 - Math.floor(Math.log10(Math.abs(value) || 1)));
  return String(Number(value.toFixed(digits)));
}

/**
 * A sentence with its figures in this screen's units. Sentences are kept with metric figures; in metric they stay as they are written.
 * @example inUnits("2 cm closer", IMPERIAL) // "0.79 in closer"
 */
export function inUnits(text: string, units: UnitPreferences): string {
  return text.replace(FIGURE, (whole, first: string, joined: string | undefined, second: string | undefined, unit: string) => {
    const { quantity, scale, offset = 0 } = WRITTEN[unit]!;
    const to = preferredUnit(quantity, units);
    if (to === unit || (quantity === "length" && units.length === "mm")) return whole;
    const shown = (n: string) => (unit === "K" && to === "°C" ? n : rounded(fromSi(quantity, Number(n) * scale + offset, to), quantity));
    const rest = joined && second ? joined.replace(second, shown(second)) : "";
    return `${shown(first)}${rest} ${to}`;
  });
}
