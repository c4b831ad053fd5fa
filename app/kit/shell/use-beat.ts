import { useEffect, useEffectEvent } from "react";

const MS = 1000;

/** Beats every so many seconds; not at all with null. */
export function useBeat(every_s: number | null, onBeat: () => void): void {
  const beat = useEffectEvent(onBeat);
  useEffect(() => {
    if (every_s === null) return;
    const every = setInterval(() => beat(), every_s * MS);
    return () => clearInterval(every);
  }, [every_s]);
}
