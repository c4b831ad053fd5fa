import type { AssessInput, Assessment } from "#core/judge/assess";
import { type RunState, useRun } from "./use-run";

export type AssessmentRun = RunState & { result: Assessment | null };

/** A panel's verdict, worked out in the worker. */
export const useAssessment = (input: AssessInput | null): AssessmentRun => useRun("verdict", "assess", input);
