import type { AssessInput, Assessment } from "#core/judge/assess";
import { type WorkerRun, useWorker } from "./use-worker";

export type AssessmentRun = WorkerRun<Assessment>;

/** A panel's verdict, worked out in the worker. */
export const useAssessment = (input: AssessInput | null): AssessmentRun => useWorker("verdict", "assess", input);
