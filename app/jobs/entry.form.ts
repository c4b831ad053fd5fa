import { readFilms } from "~/kit/form/film-readings";
import { z } from "zod";
import type { ProductSheet } from "#core/models/product/sheet";
import type { BodyInputOf } from "#core/record/bodies";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import type { PutRightKind } from "#core/record/put-right";
import { readQuantity } from "~/kit/form/read-typed";
import { bakedForm, climateForm, coatForm, coatPlaceForm, flattenForm, mixForm, turnForm } from "~/kit/form/spray-entries";
import { stripForm } from "~/kit/readings/reading.form";

/** Parts of a body that its form may change; the rest stays as it was. */
type Changed<K extends PutRightKind> = Partial<BodyInputOf<K>>;

/** A coat with its place; what is wrong with either is told at once. */
const coatTyped = (units: UnitPreferences) =>
  z.record(z.string(), z.unknown()).transform((fields, ctx) => {
    const coat = coatForm(units).safeParse(fields);
    const place = coatPlaceForm.safeParse(fields);
    for (const { path, message } of [...(coat.error?.issues ?? []), ...(place.error?.issues ?? [])])
      ctx.addIssue({ code: "custom", path, message });
    return coat.success && place.success ? { coat: coat.data, place: place.data } : z.NEVER;
  });

const FORMS: { [K in PutRightKind]: (units: UnitPreferences, sheet: Pick<ProductSheet, "bake">) => z.ZodType<Changed<K>> } = {
  coat: (units) =>
    coatTyped(units).transform(({ coat: { role, settings, reducer, wetReading_m }, place }) => ({
      role,
      settings,
      reducer,
      wetReading_m,
      ...place,
    })),
  colourCoat: (units) => coatTyped(units).transform(({ coat: { settings, reducer }, place }) => ({ settings, reducer, ...place })),
  flatten: (units) =>
    flattenForm(units).transform(({ grit, by, removal }) => ({
      grit,
      by,
      ...(removal === null ? {} : { removal_m: removal, from: "told" as const }),
    })),
  bake: (units, sheet) => bakedForm(units, sheet).transform(({ part, time }) => ({ part_K: part, time_s: time })),
  turn: () => turnForm,
  strip: (units) => stripForm(units),
  mix: mixForm,
  climate: climateForm,
  reading: (units) =>
    z.object({ value: z.string({ error: "Type a reading" }).trim().min(1, "Type a reading").max(200) }).transform(({ value }, ctx) => {
      const { problem, readings } = readFilms(value, units);
      if (problem === null) return { readings };
      ctx.addIssue({ code: "custom", path: ["value"], message: problem });
      return z.NEVER;
    }),
  wetComb: (units) =>
    z.object({ wet: z.string().max(24) }).transform(({ wet }, ctx) => {
      const read = readQuantity("film", units.film, { min: 5e-6, max: 1e-3 }, wet);
      if ("si" in read) return { thickness_m: read.si, entered: wet, unit: units.film };
      ctx.addIssue({ code: "custom", path: ["wet"], message: read.message });
      return z.NEVER;
    }),
};

/** The minute in which it happened, as a browser types it, in the server's own zone. */
export const whenForm = z.object({
  at: z
    .string({ error: "Type when it was" })
    .regex(/^\d{4}-\d\d-\d\dT\d\d:\d\d(:\d\d)?$/, "Type when it was")
    .transform((text) => new Date(text).getTime())
    .refine(Number.isFinite, "Type when it was"),
});

/** What may be put right of an entry of a kind, and when it was; what is wrong with either is told at once. */
export const putRightForm = <K extends PutRightKind>(kind: K, units: UnitPreferences, sheet: Pick<ProductSheet, "bake">) =>
  z.record(z.string(), z.unknown()).transform((fields, ctx): { body: Changed<K>; at_ms: number } => {
    const body = FORMS[kind](units, sheet).safeParse(fields);
    const when = whenForm.safeParse(fields);
    if (body.success && when.success) return { body: body.data, at_ms: when.data.at };
    for (const { path, message } of [...(body.error?.issues ?? []), ...(when.error?.issues ?? [])])
      ctx.addIssue({ code: "custom", path, message });
    return z.NEVER;
  });
