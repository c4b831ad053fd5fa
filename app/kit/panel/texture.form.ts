import { z } from "zod";

/** How a surface looks on the scale 1 … 5, in halves. */
export const textureForm = z.object({
  role: z.enum(["target", "part"]),
  rating: z.coerce.number({ error: "Choose how it looks" }).min(1).max(5).multipleOf(0.5),
  place: z.string().trim().max(60).default(""),
});
