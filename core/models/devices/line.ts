import { toSi } from "../../kernel/units/convert";
import type { Quantity } from "../../kernel/units/quantities";

/** What a line may tell, with the units in which instruments print it: those of a quantity that painters type, or a factor to SI. */
export const LINE_VALUES = {
  film: { name: "film", units: { µm: "film", mil: "film", mm: "length" } },
  mass: { name: "mass", units: { g: "mass", kg: 1, oz: 0.028349523125, lb: 0.45359237 } },
  air: { name: "air", units: { "°C": "temperature", "°F": "temperature" } },
  part: { name: "part", units: { "°C": "temperature", "°F": "temperature" } },
  humidity: { name: "humidity", units: { "%": "share" } },
} as const satisfies Record<string, { name: string; units: Record<string, Quantity | number> }>;
export type LineValue = keyof typeof LINE_VALUES;

/** What each kind of instrument has to tell, and what it may tell beside. */
export const LINE_KINDS = {
  gauge: { needs: ["film"], may: [] },
  scale: { needs: ["mass"], may: [] },
  climate: { needs: ["air", "humidity"], may: ["part"] },
} as const satisfies Record<string, { needs: readonly LineValue[]; may: readonly LineValue[] }>;
export type LineKind = keyof typeof LINE_KINDS;
export const valuesOf = (kind: LineKind): readonly LineValue[] => [...LINE_KINDS[kind].needs, ...LINE_KINDS[kind].may];

export const BAUD_RATES = [1200, 2400, 4800, 9600, 19_200, 38_400, 57_600, 115_200] as const;
/** A line is no longer; what is, is no line of an instrument. */
export const LONGEST_LINE = 200;
/** Numbers of a line that are looked at. */
export const MOST_NUMBERS = 20;

/** How the lines of one instrument are read. */
export interface LineReading {
  kind: LineKind;
  /** Only lines with this text are read; empty: all. */
  holds: string;
  /** Which number of the line, from 1, and in which unit. */
  values: Partial<Record<LineValue, { nth: number; unit: string }>>;
}

export interface LineNumber {
  text: string;
  value: number;
  /** Where it begins and ends in the line. */
  from: number;
  to: number;
}

/** A sign belongs to a number unless it stands behind a letter, a figure or a dot: `2-3` and `A-7` hold no minus. */
const NUMBER = /(?:(?<![\w.])[-+]\s{0,2})?\d+(?:[.,]\d+)?/g;

/** The numbers of a line from left to right, with a point or a comma. */
export function numbersIn(line: string): LineNumber[] {
  return [...line.slice(0, LONGEST_LINE).matchAll(NUMBER)].slice(0, MOST_NUMBERS).map((m) => ({
    text: m[0],
    value: Number(m[0].replace(/\s/g, "").replace(",", ".")),
    from: m.index,
    to: m.index + m[0].length,
  }));
}

/** A value of an instrument in SI: m, kg, K or a share. @throws RangeError for a unit that it does not have */
export function siOf(what: LineValue, value: number, unit: string): number {
  const units: Record<string, Quantity | number> = LINE_VALUES[what].units;
  const scale = Object.hasOwn(units, unit) ? units[unit] : undefined;
  if (scale === undefined) throw new RangeError(`${what} is told in ${Object.keys(units).join(", ")}, got ${unit}`);
  if (!Number.isFinite(value)) throw new RangeError(`value must be finite, got ${value}`);
  return typeof scale === "number" ? value * scale : toSi(scale, value, unit);
}

/** What a line tells by a profile, in SI; null for a line that is not one of those, or lacks a number that is needed. */
export function readLine(profile: LineReading, line: string): Partial<Record<LineValue, number>> | null {
  if (line.length > LONGEST_LINE || !line.includes(profile.holds)) return null;
  const numbers = numbersIn(line);
  const read: Partial<Record<LineValue, number>> = {};
  for (const what of valuesOf(profile.kind)) {
    const place = profile.values[what];
    const found = place && numbers[place.nth - 1];
    if (found) read[what] = siOf(what, found.value, place.unit);
    else if ((LINE_KINDS[profile.kind].needs as readonly LineValue[]).includes(what)) return null;
  }
  return read;
}

/** What most instruments of a kind print: the first number, in the unit that stands behind it; the second for what comes second. */
export function proposedValues(kind: LineKind, line: string): LineReading["values"] {
  const numbers = numbersIn(line);
  const values: LineReading["values"] = {};
  let next = 0;
  for (const what of LINE_KINDS[kind].needs) {
    const number = numbers[next++];
    if (!number) continue;
    const units = Object.keys(LINE_VALUES[what].units);
    const behind = line
      .slice(number.to, number.to + 6)
      .trim()
      .toLowerCase()
      .replace(/^um|^u\b/, "µm")
      .replace(/^([cf])\b/, "°$1");
    const unit = units.find((u) => behind.startsWith(u.toLowerCase())) ?? units[0]!;
    values[what] = { nth: next, unit };
  }
  return values;
}

/** Puts what comes in pieces together to lines: by CR, LF or both; what is longer than any line is dropped up to its end. */
export function createLineSplitter(): (piece: string) => string[] {
  let rest = "";
  let tooLong = false;
  return (piece) => {
    const parts = (rest + piece).split(/[\r\n]+/);
    rest = parts.pop() ?? "";
    const lines: string[] = [];
    for (const part of parts) {
      const whole = !tooLong && part.length <= LONGEST_LINE;
      tooLong = false;
      if (whole && part.trim() !== "") lines.push(part.trim());
    }
    if (rest.length > LONGEST_LINE) {
      rest = "";
      tooLong = true;
    }
    return lines;
  };
}
