import { useEffect, useRef } from "react";

/** Follows a real gauge's bridge while `listening`; each reading is handed on once. */
export function useGauge(listening: boolean, onReading: (reading: { total_m: number; device: string }) => void): void {
  const latest = useRef(onReading);
  useEffect(() => {
    latest.current = onReading;
  }, [onReading]);
  useEffect(() => {
    if (!listening) return;
    const source = new EventSource("/do/devices/gauge");
    source.addEventListener("reading", (e: MessageEvent<string>) =>
      latest.current(JSON.parse(e.data) as { total_m: number; device: string }),
    );
    return () => source.close();
  }, [listening]);
}
