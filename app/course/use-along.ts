import { useCallback, useState } from "react";
import { useBeforePaint } from "~/kit/root/before-paint";

const KEY = "along ";

/** Panels of a job that were ticked to go along with one another, kept for this tab: a part is taken up and put down with its others. */
export function useAlong(jobId: string, panelId: string): { ticked: readonly string[]; toggle: (id: string) => void } {
  const [ticked, setTicked] = useState<readonly string[]>([]);
  useBeforePaint(() => setTicked(read(jobId)), [jobId]);
  const toggle = useCallback(
    (id: string) => {
      const now = read(jobId);
      // Whoever ticks one panel to another has them go together from either.
      const next = now.includes(id) ? now.filter((x) => x !== id) : [...new Set([...now, id, panelId])];
      write(jobId, next);
      setTicked(next);
    },
    [jobId, panelId],
  );
  return { ticked, toggle };
}

function read(jobId: string): readonly string[] {
  try {
    return (sessionStorage.getItem(KEY + jobId) ?? "").split(" ").filter(Boolean);
  } catch {
    return [];
  }
}
function write(jobId: string, ids: readonly string[]): void {
  try {
    sessionStorage.setItem(KEY + jobId, ids.join(" "));
  } catch {
    // a browser that keeps nothing: ticked until the page is left
  }
}
