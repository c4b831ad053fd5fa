import { useEffect, useRef, useState } from "react";
import { useRevalidator } from "react-router";
import { useRoot } from "~/lib/use-root";

/** Changes of one burst are fetched once. */
const BURST_MS = 100;
/** Looks once more when a burst is over: an answer that was under way while it was written may be a moment old. */
const SETTLE_MS = 1200;

/**
 * Keeps this window in step with the server: its time (a tablet's own clock is not trusted) and every change made in another window.
 * Returns the server's time, ticking twice a second; the first render shows the time the page was made.
 */
export function useLive(): number {
  const { now_ms } = useRoot();
  const [now, setNow] = useState(now_ms);
  const offset = useRef<number | null>(null);
  const { revalidate } = useRevalidator();

  useEffect(() => {
    document.documentElement.dataset.live = ""; // scripts run from here on
    let first = true;
    let soon: ReturnType<typeof setTimeout> | undefined;
    let settle: ReturnType<typeof setTimeout> | undefined;
    const source = new EventSource("/do/events");
    const setOffset = (event: MessageEvent<string>) => {
      offset.current = (JSON.parse(event.data) as { now_ms: number }).now_ms - Date.now();
      setNow(Date.now() + offset.current);
    };
    source.addEventListener("hello", (event: MessageEvent<string>) => {
      setOffset(event);
      if (!first) void revalidate(); // the server was away: something may have been missed
      first = false;
    });
    source.addEventListener("beat", setOffset);
    // With the server away a page that looks again would break and lose what is typed in it; it looks when the stream is back.
    const look = () => {
      if (source.readyState === EventSource.OPEN) void revalidate();
    };
    source.addEventListener("change", () => {
      clearTimeout(soon);
      soon = setTimeout(look, BURST_MS);
      clearTimeout(settle);
      settle = setTimeout(look, SETTLE_MS);
    });
    const timer = setInterval(() => {
      if (offset.current !== null) setNow(Date.now() + offset.current);
    }, 500);
    return () => {
      source.close();
      clearInterval(timer);
      clearTimeout(soon);
      clearTimeout(settle);
    };
  }, [revalidate]);
  return now;
}
