import { useEffect, useState } from "react";
import type { OpName, Ops } from "#workers/ops";
import { type WorkLine, computeClient } from "./compute-client";

export interface WorkerRun<T> {
  /** Newest finished answer; kept while the next is worked out, so that nothing jumps. */
  result: T | null;
  busy: boolean;
  progress: number;
  fault: string | null;
  cancel: () => void;
}

/** Waits so long for the input to rest before it starts. */
const REST_MS = 120;

/** Works an answer out in a worker whenever the input changes; an older run is cancelled first. No input, no answer. */
export function useWorker<K extends OpName>(line: WorkLine, op: K, input: Ops[K]["in"] | null): WorkerRun<Ops[K]["out"]> {
  const key = JSON.stringify(input);
  const [run, setRun] = useState<Omit<WorkerRun<Ops[K]["out"]>, "cancel">>({ result: null, busy: false, progress: 0, fault: null });
  const [controller, setController] = useState<AbortController | null>(null);
  useEffect(() => {
    const parsed = JSON.parse(key) as Ops[K]["in"] | null;
    const abort = new AbortController();
    const wait = setTimeout(() => {
      if (!parsed) return setRun({ result: null, busy: false, progress: 0, fault: null });
      setController(abort);
      setRun((r) => ({ ...r, busy: true, progress: 0, fault: null }));
      computeClient(line)
        .run(op, parsed, { signal: abort.signal, onProgress: (progress) => setRun((r) => ({ ...r, progress })) })
        .then((result) => setRun({ result, busy: false, progress: 1, fault: null }))
        .catch((error: unknown) => {
          const cancelled = error instanceof DOMException && error.name === "AbortError";
          setRun((r) => ({ ...r, busy: false, fault: cancelled ? null : error instanceof Error ? error.message : String(error) }));
        });
    }, REST_MS);
    return () => {
      clearTimeout(wait);
      abort.abort();
    };
  }, [key, line, op]);
  return { ...run, cancel: () => controller?.abort() };
}
