import { QUANTITIES, type Quantity } from "./quantities";
import { toSi } from "./convert";

export type Parsed = { ok: true; si: number; entered: string; unit: string } | { ok: false; message: string };

/** Other spellings of a unit that a person or a gauge may type. */
const ALIASES: Record<string, string> = {
  um: "µm",
  μm: "µm",
  micron: "µm",
  microns: "µm",
  mils: "mil",
  c: "°C",
  f: "°F",
  '"': "in",
  floz: "fl oz",
  oz: "fl oz",
  minutes: "min",
  minute: "min",
  hours: "h",
  hour: "h",
  hrs: "h",
  hr: "h",
  days: "d",
  day: "d",
};
/** So long is *overnight*: from the evening to the next morning's work. A default of ours, on the safe side. */
const OVERNIGHT_S = 16 * 3600;

/**
 * Reads a number as typed, with a decimal comma or point and, if wanted, a unit behind it.
 * Two separators ("1,234.5") are refused rather than guessed.
 * A duration may also be typed in hours or days, or as *overnight*.
 * @example parseQuantity("film", "5,1 mil", "µm") // { ok: true, si: 1.2954e-4, entered: "5,1", unit: "mil" }
 */
export function parseQuantity(quantity: Quantity, text: string, defaultUnit: string): Parsed {
  const trimmed = text.trim();
  if (trimmed === "") return { ok: false, message: "Type a number" };
  if (quantity === "duration" && /^over[ -]?night$/i.test(trimmed))
    return { ok: true, si: OVERNIGHT_S, entered: trimmed, unit: defaultUnit };
  if (/^[\d.,]+\s*(?:–|-|to)\s*[\d.,]+/u.test(trimmed)) return { ok: false, message: `"${trimmed}" is a span; type one figure` };
  const match = /^([+-]?[\d.,]+)\s*(.*)$/u.exec(trimmed);
  if (!match) return { ok: false, message: `"${trimmed}" is not a number` };
  const [, digits = "", suffix = ""] = match;
  if ((digits.match(/[.,]/g) ?? []).length > 1)
    return { ok: false, message: `"${digits}" has two separators; type it without a thousands mark` };
  const value = Number(digits.replace(",", "."));
  if (!Number.isFinite(value)) return { ok: false, message: `"${trimmed}" is not a number` };
  const units = Object.keys(QUANTITIES[quantity].units);
  const wanted = suffix.trim();
  const unit = wanted === "" ? defaultUnit : units.find((u) => u.toLowerCase() === (ALIASES[wanted.toLowerCase()] ?? wanted).toLowerCase());
  if (unit === undefined) return { ok: false, message: `"${wanted}" is not a unit here; use ${units.join(" or ")}` };
  return { ok: true, si: toSi(quantity, value, unit), entered: digits, unit };
}
