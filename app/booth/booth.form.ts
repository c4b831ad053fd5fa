import { z } from "zod";

/** A coat started or stopped. */
export const boothForm = z.object({
  intent: z.enum(["start", "stop"]),
  panelId: z.string().min(1),
  number: z.coerce.number().int().min(1).max(20),
  formKey: z.string().min(1).max(120),
});
