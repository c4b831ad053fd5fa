import { useEffect, useMemo, useState } from "react";
import type { OpName, Ops } from "#workers/ops";
import { type WorkLine, computeClient } from "./compute-client";

export interface WorkerRun<T> {
  /** Newest finished answer; kept while the next is worked out, so that nothing jumps. */
  result: T | null;
  /** From the moment the question changes until it is answered, given up or has failed. */
  busy: boolean;
  progress: number;
  fault: string | null;
  cancel: () => void;
}

type Settled<T> = Omit<WorkerRun<T>, "busy" | "cancel"> & { settled: string | null };

/** Waits so long for the input to rest before it starts. */
const REST_MS = 120;

/** Works an answer out in a worker whenever the input changes; an older run is cancelled first. No input, no answer. */
export function useWorker<K extends OpName>(line: WorkLine, op: K, input: Ops[K]["in"] | null): WorkerRun<Ops[K]["out"]> {
  const key = useMemo(() => JSON.stringify(input), [input]);
  const [run, setRun] = useState<Settled<Ops[K]["out"]>>({ result: null, progress: 0, fault: null, settled: null });
  const [controller, setController] = useState<AbortController | null>(null);
  useEffect(() => {
    const parsed = JSON.parse(key) as Ops[K]["in"] | null;
    const abort = new AbortController();
    const wait = setTimeout(() => {
      if (!parsed) return setRun({ result: null, progress: 0, fault: null, settled: key });
      setController(abort);
      setRun((r) => ({ ...r, progress: 0, fault: null }));
      computeClient(line)
        .run(op, parsed, { signal: abort.signal, onProgress: (progress) => setRun((r) => ({ ...r, progress })) })
        .then((result) => setRun({ result, progress: 1, fault: null, settled: key }))
        .catch((error: unknown) => {
          const cancelled = error instanceof DOMException && error.name === "AbortError";
          setRun((r) => ({ ...r, settled: key, fault: cancelled ? null : error instanceof Error ? error.message : String(error) }));
        });
    }, REST_MS);
    return () => {
      clearTimeout(wait);
      abort.abort();
    };
  }, [key, line, op]);
  const { settled, ...shown } = run;
  return { ...shown, busy: input !== null && settled !== key, cancel: () => controller?.abort() };
}
