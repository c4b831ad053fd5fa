import { useEffect, useState } from "react";
import type { AssessInput, Assessment } from "#core/film/assess-panel";
import { computeClient } from "./compute-client";

export interface AssessmentRun {
  /** Newest finished answer; kept while the next is worked out, so that nothing jumps. */
  result: Assessment | null;
  busy: boolean;
  progress: number;
  fault: string | null;
  cancel: () => void;
}

/** Works a verdict out in the worker whenever the input changes; an older run is cancelled first. */
export function useAssessment(input: AssessInput | null): AssessmentRun {
  const key = JSON.stringify(input);
  const [run, setRun] = useState<Omit<AssessmentRun, "cancel">>({ result: null, busy: false, progress: 0, fault: null });
  const [controller, setController] = useState<AbortController | null>(null);
  useEffect(() => {
    const parsed = JSON.parse(key) as AssessInput | null;
    const abort = new AbortController();
    const wait = setTimeout(() => {
      if (!parsed) return setRun({ result: null, busy: false, progress: 0, fault: null });
      setController(abort);
      setRun((r) => ({ ...r, busy: true, progress: 0, fault: null }));
      computeClient("verdict")
        .run("assessPanel", parsed, { signal: abort.signal, onProgress: (progress) => setRun((r) => ({ ...r, progress })) })
        .then((result) => setRun({ result, busy: false, progress: 1, fault: null }))
        .catch((error: unknown) => {
          const cancelled = error instanceof DOMException && error.name === "AbortError";
          setRun((r) => ({ ...r, busy: false, fault: cancelled ? null : error instanceof Error ? error.message : String(error) }));
        });
    }, 120);
    return () => {
      clearTimeout(wait);
      abort.abort();
    };
  }, [key]);
  return { ...run, cancel: () => controller?.abort() };
}
