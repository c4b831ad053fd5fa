import { z } from "zod";
import { type JobColours, ONE_COLOUR, PAINTS, type Paint } from "./job-colours";

/** A job's colours as they are stored. */
export const jobColoursBody = z.object({
  second: z
    .object({ name: z.string().trim().max(60, "At most 60 characters"), css: z.string().regex(/^#[0-9a-f]{6}$/i, "A colour") })
    .nullable()
    .default(ONE_COLOUR.second),
  paint: z
    .enum(Object.keys(PAINTS) as [Paint, ...Paint[]])
    .nullable()
    .default(ONE_COLOUR.paint),
}) satisfies z.ZodType<JobColours>;
