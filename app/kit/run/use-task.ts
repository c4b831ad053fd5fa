import { useRef, useState } from "react";
import { useMutation } from "@tanstack/react-query";
import type { OpName, Ops } from "#workers/ops";
import { type WorkLine, computeClient } from "./compute-client";
import { useRunClient } from "./run-client";
import { faultInWords } from "./run-fault";

export type TaskAnswer<K extends OpName> = { at: "done"; output: Ops[K]["out"] } | { at: "stopped" } | { at: "failed"; reason: string };
export interface Task<K extends OpName> {
  /** Works one question out in the worker, once; pictures in it are handed over, not copied. Making the question may take time too. Never throws. */
  run: (question: () => Promise<Ops[K]["in"]>) => Promise<TaskAnswer<K>>;
  busy: boolean;
  /** Share of the work that is done, 0 to 1. */
  progress: number;
  cancel: () => void;
}

/** A question that is asked when a button is pressed, not while figures change. */
export function useTask<K extends OpName>(line: WorkLine, op: K): Task<K> {
  const client = useRunClient();
  const [progress, setProgress] = useState(0);
  const controller = useRef<AbortController | null>(null);
  const { mutateAsync, isPending } = useMutation(
    {
      mutationFn: async ({ question, signal }: { question: () => Promise<Ops[K]["in"]>; signal: AbortSignal }) => {
        setProgress(0);
        return computeClient(line).run(op, await question(), { signal, onProgress: setProgress });
      },
    },
    client,
  );
  return {
    run: async (question) => {
      controller.current = new AbortController(); // from now on it can be stopped, also while the question is made
      const { signal } = controller.current;
      try {
        return { at: "done", output: await mutateAsync({ question, signal }) };
      } catch (error) {
        const reason = faultInWords(error as Error);
        return reason === null ? { at: "stopped" } : { at: "failed", reason };
      }
    },
    busy: isPending,
    progress,
    cancel: () => controller.current?.abort(),
  };
}
