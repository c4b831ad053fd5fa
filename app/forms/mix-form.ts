import { z } from "zod";
import { parseRatio } from "#core/mix/ratio";
import { type UnitPreferences } from "#core/units/quantities";
import { optionalQuantity, quantity, wholeNumber } from "./fields";

/** The figures of one mix as typed; the page reads them live, the action again when the mix is kept. */
export const mixDeskForm = (units: UnitPreferences) =>
  z.object({
    ratio: z
      .string()
      .trim()
      .transform((text, ctx) => {
        const parsed = parseRatio(text);
        if (parsed.ok) return parsed.parts;
        ctx.addIssue({ code: "custom", message: parsed.message });
        return z.NEVER;
      }),
    reducer: quantity("share", units, { min: 0, max: 0.9 }),
    meaning: z.enum(["activated", "finished"]),
    coats: wholeNumber(1, 12),
    film: quantity("film", units, { min: 5e-6, max: 300e-6 }),
    transfer: quantity("share", units, { min: 0.1, max: 1 }),
    waste: quantity("share", units, { min: 0, max: 1 }),
    dead: quantity("volume", units, { min: 0, max: 1e-3 }),
    temperature: quantity("temperature", units, { min: 278.15, max: 313.15 }),
    pot: quantity("volume", units, { min: 50e-6, max: 0.02 }),
    limit: optionalQuantity("concentration", units, { min: 1, max: 1500 }),
  });
export type MixTyped = Record<keyof z.output<ReturnType<typeof mixDeskForm>>, string>;

/** A mix as the page sends it to be kept with a panel. */
export const keptMix = z.object({
  volume_m3: z.number().positive().max(0.1),
  reducer: z.number().min(0).max(1),
  potLife_s: z.number().positive(),
  temperature_K: z.number().min(253).max(333),
  panels: z.array(z.string().max(80)).max(40),
  parts: z
    .array(
      z.object({
        name: z.string().max(80),
        volume_m3: z.number().min(0),
        mass_kg: z.number().min(0).nullable(),
        poured_kg: z.number().min(0).nullable(),
      }),
    )
    .max(6),
  canId: z.string().nullable(),
  formKey: z.string().max(80),
});
export type KeptMix = z.infer<typeof keptMix>;
