import { useCallback, useEffect, useState } from "react";

export interface ScaleNow {
  device: string;
  simulated: boolean;
  mass_kg: number | null;
  stable: boolean;
  fault: string | null;
}

/** Follows the scale while the guide is open. */
export function useScale(): { scale: ScaleNow | null; command: (c: object) => Promise<ScaleNow> } {
  const [scale, setScale] = useState<ScaleNow | null>(null);
  useEffect(() => {
    const source = new EventSource("/do/devices/scale");
    source.addEventListener("reading", (e: MessageEvent<string>) => setScale(JSON.parse(e.data) as ScaleNow));
    source.addEventListener("error", () => setScale((s) => (s ? { ...s, fault: "The scale does not answer. Trying again…" } : s)));
    return () => source.close();
  }, []);
  const command = useCallback(async (body: object) => {
    const answer = await fetch("/do/devices/scale", {
      method: "POST",
      headers: { "Content-Type": "application/json" },
      body: JSON.stringify(body),
    });
    const now = (await answer.json()) as ScaleNow;
    setScale(now);
    return now;
  }, []);
  return { scale, command };
}
