import { z } from "zod";

const text = (most: number) => z.string().trim().max(most, `At most ${most} characters`).default("");

/** What a job is told beside its parts: all of it may be left away. */
export const jobBriefBody = z.object({
  /** Gloss at 60° that a matte job is to have. */
  targetGloss_GU: z.number().min(1, "Below 1 GU nothing is told apart").max(100, "Above 100 GU is no matte").nullable().default(null),
  colourCode: text(40),
  customer: text(80),
  plate: text(20),
  /** The day it was promised for, noon of it. */
  promised_ms: z.int().min(0).nullable().default(null),
});
export type JobBrief = z.infer<typeof jobBriefBody>;
export const NO_BRIEF: JobBrief = jobBriefBody.parse({});
