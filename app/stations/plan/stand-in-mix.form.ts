import { z } from "zod";

/** A mix as the page sends it to be kept with a panel. */
export const keptMix = z.object({
  volume_m3: z.number().positive().max(0.1),
  reducer: z.number().min(0).max(1),
  potLife_s: z.number().positive(),
  temperature_K: z.number().min(253).max(333),
  panels: z.array(z.string().max(80)).max(40),
  product: z.string().max(80),
  speed: z.enum(["fast", "medium", "slow"]).nullable(),
  mattingShare: z.number().min(0).max(1).nullable(),
  settles_s: z.number().nullable(),
  parts: z
    .array(
      z.object({
        name: z.string().max(80),
        volume_m3: z.number().min(0),
        mass_kg: z.number().min(0).nullable(),
        poured_kg: z.number().min(0).nullable(),
        batch: z.string().max(40),
        canId: z.string().max(80).nullable(),
      }),
    )
    .max(6),
  formKey: z.string().max(80),
});
export type KeptMix = z.infer<typeof keptMix>;
