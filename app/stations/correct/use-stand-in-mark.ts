import { useCallback, useState } from "react";

/** Reads the stand-in gauge at the mark of the step in hand; null with a fault when it does not answer. */
export function useStandInMark(panelId: string) {
  const [fault, setFault] = useState<string | null>(null);
  const read = useCallback(
    async (when: "before" | "after"): Promise<number[] | null> => {
      const answer = await fetch(`/do/panels/${panelId}/stand-in-mark?when=${when}`).catch(() => null);
      setFault(answer?.ok ? null : "The practice (simulated) gauge did not answer");
      return answer?.ok ? ((await answer.json()) as { readings_m: number[] }).readings_m : null;
    },
    [panelId],
  );
  return { read, fault };
}
