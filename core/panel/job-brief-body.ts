import { z } from "zod";
import { type JobBrief, NO_BRIEF } from "./job-brief";

const text = (most: number) => z.string().trim().max(most, `At most ${most} characters`).default("");

/** A brief as it is stored. */
export const jobBriefBody = z.object({
  targetGloss_GU: z
    .number()
    .min(1, "Below 1 GU nothing is told apart")
    .max(100, "Above 100 GU is no matte")
    .nullable()
    .default(NO_BRIEF.targetGloss_GU),
  colourCode: text(40),
  customer: text(80),
  plate: text(20),
  promised_ms: z.int().min(0).nullable().default(NO_BRIEF.promised_ms),
}) satisfies z.ZodType<JobBrief>;
