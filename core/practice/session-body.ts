import { z } from "zod";
import { EXERCISE_IDS, LEVELS } from "./exercises";
import { ALL_SKILLS } from "./mended";

const share = z.number().min(0).max(1e3);
/** What of a session is kept: what it came to, and what each thing of the hand cost. SI; shares of the part. */
export const sessionBody = z.object({
  runShare: share,
  thinShare: share,
  uneven: share,
  least_m: z.number().min(0).max(1e-2),
  volume_m3: z.number().min(0).max(1),
  time_s: z.number().min(0).max(1e6),
  /** Cost of each skill that was not kept, as a loss of film (docs/models.md, "Practice"); of the judgement whenever the panel was judged, also 0. */
  costs: z.partialRecord(z.enum(ALL_SKILLS), z.number().min(0).max(1e3)),
});
export type SessionBody = z.infer<typeof sessionBody>;

export const practiceSession = z.object({
  exercise: z.enum([...EXERCISE_IDS, "free"]),
  level: z.enum(LEVELS),
  passed: z.boolean(),
  body: sessionBody,
});
export type PracticeSession = z.infer<typeof practiceSession>;
