/**
 * The quantities a painter types and reads, each with its SI unit and the units the trade uses.
 * SI = entered * scale + offset. Scales are exact by definition (international inch 25.4 mm, US fluid ounce 29.5735295625 ml,
 * pound-force per square inch 6894.757293168 Pa, pound 0.45359237 kg, US gallon 3.785411784 l).
 */
export const QUANTITIES = {
  film: { si: "m", units: { µm: { scale: 1e-6, digits: 1 }, mil: { scale: 25.4e-6, digits: 2 } } },
  length: { si: "m", units: { mm: { scale: 1e-3, digits: 0 }, in: { scale: 0.0254, digits: 1 } } },
  /** Of what comes from a roll. */
  distance: { si: "m", units: { m: { scale: 1, digits: 0 }, ft: { scale: 0.3048, digits: 0 } } },
  temperature: {
    si: "K",
    units: { "°C": { scale: 1, offset: 273.15, digits: 1 }, "°F": { scale: 5 / 9, offset: 273.15 - (32 * 5) / 9, digits: 1 } },
  },
  temperatureDifference: { si: "K", units: { "°C": { scale: 1, digits: 1 }, "°F": { scale: 5 / 9, digits: 1 } } },
  pressure: { si: "Pa", units: { bar: { scale: 1e5, digits: 2 }, psi: { scale: 6894.757293168361, digits: 1 } } },
  volume: { si: "m³", units: { ml: { scale: 1e-6, digits: 0 }, "fl oz": { scale: 29.5735295625e-6, digits: 1 } } },
  fluidRate: { si: "m³/s", units: { "ml/min": { scale: 1e-6 / 60, digits: 0 }, "fl oz/min": { scale: 29.5735295625e-6 / 60, digits: 1 } } },
  speed: { si: "m/s", units: { "m/s": { scale: 1, digits: 2 }, "in/s": { scale: 0.0254, digits: 1 } } },
  duration: { si: "s", units: { min: { scale: 60, digits: 0 }, h: { scale: 3600, digits: 1 }, d: { scale: 86400, digits: 1 } } },
  area: { si: "m²", units: { "m²": { scale: 1, digits: 2 }, "ft²": { scale: 0.3048 ** 2, digits: 1 } } },
  share: { si: "1", units: { "%": { scale: 0.01, digits: 1 } } },
  mass: { si: "kg", units: { g: { scale: 1e-3, digits: 1 } } },
  density: { si: "kg/m³", units: { "g/ml": { scale: 1000, digits: 3 }, "lb/gal": { scale: 0.45359237 / 3.785411784e-3, digits: 2 } } },
  concentration: { si: "kg/m³", units: { "g/l": { scale: 1, digits: 0 } } },
  seconds: { si: "s", units: { s: { scale: 1, digits: 0 } } },
  viscosity: { si: "m²/s", units: { "mm²/s": { scale: 1e-6, digits: 0 } } },
  gloss: { si: "GU", units: { GU: { scale: 1, digits: 1 } } },
  angle: { si: "rad", units: { "°": { scale: Math.PI / 180, digits: 0 } } },
  count: { si: "1", units: { "": { scale: 1, digits: 2 } } },
} as const satisfies Record<string, { si: string; units: Record<string, { scale: number; offset?: number; digits: number }> }>;

export type Quantity = keyof typeof QUANTITIES;
export type UnitOf<Q extends Quantity> = keyof (typeof QUANTITIES)[Q]["units"] & string;

export interface UnitPreferences {
  film: UnitOf<"film">;
  length: UnitOf<"length">;
  temperature: UnitOf<"temperature">;
  pressure: UnitOf<"pressure">;
  volume: UnitOf<"volume">;
}

export const METRIC: UnitPreferences = { film: "µm", length: "mm", temperature: "°C", pressure: "bar", volume: "ml" };
export const IMPERIAL: UnitPreferences = { film: "mil", length: "in", temperature: "°F", pressure: "psi", volume: "fl oz" };

interface UnitDef {
  scale: number;
  offset?: number;
  digits: number;
}

/** Definition of one unit of a quantity. @throws RangeError for a unit the quantity does not have. */
export function unitDef(quantity: Quantity, unit: string): UnitDef {
  const table: Record<string, UnitDef> = QUANTITIES[quantity].units;
  const def = Object.hasOwn(table, unit) ? table[unit] : undefined;
  if (!def) throw new RangeError(`unit must be one of ${Object.keys(table).join(", ")} for ${quantity}, got ${unit}`);
  return def;
}

/** The unit in which these preferences show a quantity. */
export function preferredUnit(quantity: Quantity, prefs: UnitPreferences): string {
  switch (quantity) {
    case "film":
    case "length":
    case "temperature":
    case "pressure":
    case "volume":
      return prefs[quantity];
    case "temperatureDifference":
      return prefs.temperature;
    case "fluidRate":
      return prefs.volume === "ml" ? "ml/min" : "fl oz/min";
    case "density":
      return prefs.volume === "ml" ? "g/ml" : "lb/gal";
    case "area":
      return prefs.length === "mm" ? "m²" : "ft²";
    case "distance":
      return prefs.length === "mm" ? "m" : "ft";
    case "speed":
      return prefs.length === "mm" ? "m/s" : "in/s";
    default:
      return Object.keys(QUANTITIES[quantity].units)[0] ?? "";
  }
}

/** The quantity that a unit belongs to; where two share a unit, the one a person types as a figure of its own; null for no unit of ours. */
export function quantityOfUnit(unit: string): Quantity | null {
  if (unit === "") return null;
  return (Object.keys(QUANTITIES) as Quantity[]).find((q) => Object.hasOwn(QUANTITIES[q].units, unit)) ?? null;
}
