import { parse } from "date-fns";
import { z } from "zod";
import { type Quantity, type UnitPreferences, preferredUnit } from "#core/kernel/units/quantities";
import { type Limits, type ReadTyped, readQuantity } from "./read-typed";

/** The reader of one typed quantity as Zod's transforms want it. */
const readWith =
  (kind: Quantity, unit: string, limits: Limits) =>
  (text: string, ctx: z.core.$RefinementCtx<unknown>): number => {
    const read = readQuantity(kind, unit, limits, text);
    if ("si" in read) return read.si;
    ctx.addIssue({ code: "custom", message: read.message });
    return z.NEVER;
  };

/** A form that is checked by the same function that reads it while it is typed. */
export const checkedBy = <T>(read: (fields: Record<string, unknown>) => ReadTyped<T>) =>
  z.record(z.string(), z.unknown()).transform((fields, ctx): T => {
    const result = read(fields);
    if (result.success) return result.data;
    for (const [field, messages] of Object.entries(result.errors))
      for (const message of messages) ctx.addIssue({ code: "custom", path: [field], message });
    return z.NEVER;
  });

/** A typed quantity in this screen's unit, read to SI; comma or point; the message names the limits in the same unit. */
export function quantity(kind: Quantity, units: UnitPreferences, limits: Limits) {
  return z.string({ error: "Type a number" }).transform(readWith(kind, preferredUnit(kind, units), limits));
}

/** The same, or null when nothing is typed. */
export function optionalQuantity(kind: Quantity, units: UnitPreferences, limits: Limits) {
  const read = readWith(kind, preferredUnit(kind, units), limits);
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

/** A day as a date field sends it, noon of that day so that no time zone moves it; nothing typed is null. */
export const dayAtNoon = z
  .string()
  .default("")
  .transform((t, ctx) => {
    if (t === "") return null;
    const at = parse(`${t} 12:00`, "yyyy-MM-dd HH:mm", new Date(0)).getTime();
    if (Number.isFinite(at)) return at;
    ctx.addIssue({ code: "custom", message: "Type the day as year-month-day" });
    return z.NEVER;
  });
