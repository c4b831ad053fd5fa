import { z } from "zod";

/** A clear's data sheet in SI. Every figure is the shop's entry from the sheet it holds; none is built in. */
export const productSheet = z.object({
  name: z.string().trim().min(1, "Give the product a name").max(80),
  kind: z.enum(["clear", "matte clear"]),
  ratio: z.string().trim().max(40).default(""),
  /** Solids by volume of the activated mix, share. */
  volumeSolids: z.number().min(0.05).max(0.95),
  speed: z.enum(["fast", "medium", "slow"]),
  coats: z.int().min(1).max(8),
  filmPerCoatMin_m: z.number().positive().max(300e-6),
  filmPerCoatMax_m: z.number().positive().max(300e-6),
  flashMin_s: z.number().positive().max(86400),
  flashMax_s: z
    .number()
    .positive()
    .max(7 * 86400),
  potLife_s: z
    .number()
    .positive()
    .max(7 * 86400),
  /** Air-dried at 20 °C before it may be sanded. */
  sandAfter_s: z
    .number()
    .positive()
    .max(30 * 86400),
  /** Least clear to keep by the sheet; null: the shop's own floor. */
  floor_m: z.number().positive().max(300e-6).nullable(),
});
export type ProductSheet = z.infer<typeof productSheet>;
