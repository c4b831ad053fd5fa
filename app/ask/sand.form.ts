import { z } from "zod";
import { SHAPE_KINDS } from "#core/kernel/geometry/shapes";
import { SUBSTRATES, type Substrate } from "#core/panel/brief";

/** Readings of the quick question that are kept as a job. */
export const keptReadings = z.object({
  shape: z.enum(SHAPE_KINDS),
  substrate: z.enum(Object.keys(SUBSTRATES) as [Substrate, ...Substrate[]]),
  productRevisionId: z.string().min(1),
  unit: z.enum(["µm", "mil"]),
  rows: z.array(z.object({ before: z.string().max(24), after: z.string().max(24) })).max(60),
  formKey: z.string().max(80),
});
