import { useEffect, useState } from "react";
import type { BoothAnswer } from "#core/models/schedule/booth-plan";
import type { BoothProblem } from "#core/models/schedule/booth-problem";
import { computeClient } from "~/kit/run/compute-client";

/** Works the plan out off the main thread; a newer problem takes the place of an older one. The last answer stays while the next is made. */
export function useBoothPlan(problem: BoothProblem): { answer: BoothAnswer | null; busy: boolean; fault: string | null } {
  const key = JSON.stringify(problem);
  const [state, setState] = useState<{ answer: BoothAnswer | null; fault: string | null; of: string }>({
    answer: null,
    fault: null,
    of: "",
  });
  useEffect(() => {
    const abort = new AbortController();
    computeClient("booth")
      .run("boothPlan", JSON.parse(key) as BoothProblem, { signal: abort.signal })
      .then((answer) => setState({ answer, fault: null, of: key }))
      .catch((error: unknown) => {
        if (error instanceof DOMException && error.name === "AbortError") return;
        setState({ answer: null, fault: error instanceof Error ? error.message : String(error), of: key });
      });
    return () => abort.abort();
  }, [key]);
  return { answer: state.answer, fault: state.fault, busy: state.of !== key };
}
