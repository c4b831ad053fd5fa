import { fromSi } from "#core/kernel/units/convert";
import { parseQuantity } from "#core/kernel/units/parse";
import { type Quantity, type UnitPreferences, preferredUnit, unitDef } from "#core/kernel/units/quantities";

export interface Limits {
  min: number;
  max: number;
}
/** What is wrong with what was typed, by field. */
export type FieldErrors = Record<string, string[]>;
export type ReadTyped<T> = { success: true; data: T } | { success: false; errors: FieldErrors };

const inUnit = (quantity: Quantity, si: number, unit: string) => {
  const { digits } = unitDef(quantity, unit);
  return `${Number(fromSi(quantity, si, unit).toFixed(Math.max(digits, 2)))} ${unit}`;
};

/** Reads text to SI within limits, or says what is wrong in the unit that was typed. */
export function readQuantity(kind: Quantity, unit: string, { min, max }: Limits, text: string): { si: number } | { message: string } {
  const parsed = parseQuantity(kind, text, unit);
  if (!parsed.ok) return { message: parsed.message };
  if (parsed.si < min * (1 - 1e-9) || parsed.si > max * (1 + 1e-9))
    return { message: `Between ${inUnit(kind, min, unit)} and ${inUnit(kind, max, unit)}` };
  return { si: parsed.si };
}

/** What the typed fields of one form are read with: each asked by name, all that is wrong gathered. */
export interface TypedReader {
  text(name: string): string;
  list(name: string): string[];
  /** A quantity in this screen's unit, in SI; NaN when it is wrong, which is then among the errors. */
  quantity(name: string, kind: Quantity, limits: Limits): number;
  /** The same; null when nothing is typed. */
  optional(name: string, kind: Quantity, limits: Limits): number | null;
  whole(name: string, min: number, max: number): number;
  oneOf<T extends string>(name: string, values: readonly T[]): T;
  wrong(name: string, message: string): void;
}

/**
 * Reads what is typed without a schema package: the pages that work figures out while somebody types read by this, and the same function checks
 * the form when it is sent (`checkedBy` in `fields`).
 */
export function readTyped<T>(typed: Record<string, unknown>, units: UnitPreferences, read: (r: TypedReader) => T): ReadTyped<T> {
  const errors: FieldErrors = {};
  const wrong = (name: string, message: string) => void (errors[name] ??= []).push(message);
  const raw = (name: string) => (Object.hasOwn(typed, name) ? typed[name] : undefined);
  const text = (name: string) => {
    const value = raw(name);
    return typeof value === "string" ? value : "";
  };
  const quantity = (name: string, kind: Quantity, limits: Limits) => {
    const value = raw(name);
    if (typeof value !== "string") {
      wrong(name, "Type a number");
      return NaN;
    }
    const read = readQuantity(kind, preferredUnit(kind, units), limits, value);
    if ("si" in read) return read.si;
    wrong(name, read.message);
    return NaN;
  };
  const data = read({
    text,
    list(name) {
      const value = raw(name);
      const list = Array.isArray(value) ? value : value === undefined ? [] : [value];
      return list.filter((v): v is string => typeof v === "string");
    },
    quantity,
    optional: (name, kind, limits) => (text(name).trim() === "" ? null : quantity(name, kind, limits)),
    whole(name, min, max) {
      const value = Number(text(name).trim() || NaN);
      if (!Number.isInteger(value)) wrong(name, "Type a whole number");
      else if (value < min) wrong(name, `At least ${min}`);
      else if (value > max) wrong(name, `At most ${max}`);
      return value;
    },
    oneOf(name, values) {
      const value = values.find((v) => v === text(name));
      if (value === undefined) wrong(name, "Choose one of those given");
      return value ?? values[0]!;
    },
    wrong,
  });
  return Object.keys(errors).length === 0 ? { success: true, data } : { success: false, errors };
}
