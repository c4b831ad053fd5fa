import { z } from "zod";
import { type Parsed, parseQuantity } from "#core/units/parse";
import { fromSi } from "#core/units/convert";
import { type Quantity, type UnitPreferences, preferredUnit, unitDef } from "#core/units/quantities";

interface Limits {
  min: number;
  max: number;
}

const inUnit = (quantity: Quantity, si: number, unit: string) => {
  const { digits } = unitDef(quantity, unit);
  return `${Number(fromSi(quantity, si, unit).toFixed(Math.max(digits, 2)))} ${unit}`;
};

/** Reads text to SI within limits, or says what is wrong in the unit that was typed. */
function readQuantity(kind: Quantity, unit: string, { min, max }: Limits) {
  return (text: string, ctx: z.core.$RefinementCtx<unknown>): number => {
    const parsed = parseQuantity(kind, text, unit);
    const message = !parsed.ok
      ? parsed.message
      : parsed.si < min * (1 - 1e-9) || parsed.si > max * (1 + 1e-9)
        ? `Between ${inUnit(kind, min, unit)} and ${inUnit(kind, max, unit)}`
        : null;
    if (message === null && parsed.ok) return parsed.si;
    ctx.addIssue({ code: "custom", message: message ?? "Type a number" });
    return z.NEVER;
  };
}

/** A typed quantity in this screen's unit, read to SI; comma or point; the message names the limits in the same unit. */
export function quantity(kind: Quantity, units: UnitPreferences, limits: Limits) {
  return z.string({ error: "Type a number" }).transform(readQuantity(kind, preferredUnit(kind, units), limits));
}

/** The same, or null when nothing is typed. */
export function optionalQuantity(kind: Quantity, units: UnitPreferences, limits: Limits) {
  const read = readQuantity(kind, preferredUnit(kind, units), limits);
  return z
    .string()
    .optional()
    .transform((text, ctx) => (text === undefined || text.trim() === "" ? null : read(text, ctx)));
}

/** What is wrong, by field; what belongs to no field under `form`. */
export function errorsByField(error: z.ZodError): Record<string, string[]> {
  const errors: Record<string, string[]> = {};
  for (const issue of error.issues) (errors[issue.path.join(".") || "form"] ??= []).push(issue.message);
  return errors;
}

/** A whole number typed or chosen. */
export const wholeNumber = (min: number, max: number) =>
  z.coerce.number({ error: "Type a whole number" }).int("A whole number").min(min, `At least ${min}`).max(max, `At most ${max}`);

/** An amount of money in the shop's own: from zero; comma or point. */
export const amount = (max: number) =>
  z.string({ error: "Type a number" }).transform((text, ctx) => {
    const typed = text.trim().replace(",", ".");
    const value = Number(typed);
    if (typed !== "" && Number.isFinite(value) && value >= 0 && value <= max) return value;
    ctx.addIssue({ code: "custom", message: typed === "" ? "Type a number" : `A number from 0 to ${max}` });
    return z.NEVER;
  });

/** Film readings as typed, several with spaces between: "131 128 126", "5,1 mil". */
export const filmReadings = (text: string, units: UnitPreferences): Parsed[] =>
  text
    .trim()
    .split(/\s+(?=[\d+-])/)
    .map((t) => parseQuantity("film", t, units.film));
