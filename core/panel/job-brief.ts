/** What a job is told beside its parts: all of it may be left away. */
export interface JobBrief {
  /** Gloss at 60° that a matte job is to have. */
  targetGloss_GU: number | null;
  colourCode: string;
  customer: string;
  plate: string;
  /** The day it was promised for, noon of it. */
  promised_ms: number | null;
}
export const NO_BRIEF: JobBrief = { targetGloss_GU: null, colourCode: "", customer: "", plate: "", promised_ms: null };
