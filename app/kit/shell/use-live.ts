import { useCallback, useEffect, useRef, useState } from "react";
import { useFetchers, useNavigation, useRevalidator } from "react-router";
import type { ToldChange } from "#server/events/bus";
import { deviceHere } from "~/kit/http/wait-for-server";
import { useRoot } from "~/kit/root/use-root";
import { concerns } from "./interest";
import { lookAgain } from "./look-again";

const COME_BACK_MS = 10_000;
/** Clocks show whole seconds: drawn once in each, just after it has begun, since a page that is only open should take little of a tablet. */
const SECOND_MS = 1000;
const LATE_MS = 20;

/**
 * Keeps this window in step with the server: its time (a tablet's own clock is not trusted) and every change made in another window.
 * @returns the server's time, ticking with its seconds (the first render shows the time the page was made), and whether its stream has broken off
 */
export function useLive(): { now_ms: number; away: () => boolean } {
  const { now_ms, published } = useRoot();
  /** Changes told when this page was first made: what was told before its stream opened would never be seen. */
  const [madeAt] = useState(published);
  const [madeFor] = useState(now_ms);
  /** This browser's clock when the page was first shown. */
  const [shownAt] = useState(() => Date.now());
  const [now, setNow] = useState(now_ms);
  const offset = useRef<number | null>(null);
  const { revalidate } = useRevalidator();
  const going = useRef(false);
  const broken = useRef(false);
  const away = useCallback(() => broken.current, []);
  const { state } = useNavigation();
  // A form on its way may end in another page: a look taken meanwhile would pass for a newer wish, and the page would stay.
  const sending = useFetchers().some((f) => f.formMethod !== undefined && f.formMethod !== "GET");
  useEffect(() => {
    going.current = state !== "idle" || sending;
  }, [state, sending]);

  useEffect(() => {
    document.documentElement.dataset.live = ""; // scripts run from here on
    let first = true;
    let again: ReturnType<typeof setTimeout> | undefined;
    const setOffset = (event: MessageEvent<string>) => {
      offset.current = (JSON.parse(event.data) as { now_ms: number }).now_ms - Date.now();
      setNow(Date.now() + offset.current);
    };
    const open = () => {
      const opened = new EventSource("/do/events");
      opened.addEventListener("hello", (event: MessageEvent<string>) => {
        setOffset(event);
        broken.current = false;
        if (!first)
          void (deviceHere()?.flush() ?? Promise.resolve()).then(revalidate); // the server was away: something may have been missed
        else if ((JSON.parse(event.data) as { published: number }).published !== madeAt) changed(); // written between the page and its stream
        first = false;
      });
      opened.addEventListener("beat", setOffset);
      opened.addEventListener("change", (event: MessageEvent<string>) => {
        deviceHere()?.follow("others");
        const change = JSON.parse(event.data) as ToldChange;
        if (concerns(change, window.location.pathname)) changed(change.windows);
      });
      // Where the answer was no stream (too many screens) a browser does not come back by itself.
      opened.addEventListener("error", () => {
        broken.current = true;
        offset.current ??= madeFor - shownAt; // opened without the server: its clock goes on from when the page was made
        if (opened.readyState !== EventSource.CLOSED) return;
        again = setTimeout(() => (source = open()), COME_BACK_MS);
        // Whoever is not let in any more is told so by the page itself.
        void fetch("/do/events", { method: "HEAD" }).then(
          ({ status }) => (status === 401 ? revalidate() : undefined),
          () => {},
        );
      });
      return opened;
    };
    // With the server away a page that looks again would break and lose what is typed in it; it looks when the stream is back.
    const { changed, stop } = lookAgain(async () => {
      if (source.readyState !== EventSource.OPEN) return;
      // A navigation under way brings the newest itself; looking meanwhile would interrupt it. What came too late for it is looked for after it.
      if (going.current) changed();
      else await revalidate();
    });
    let source = open();
    let timer: ReturnType<typeof setTimeout>;
    const tick = () => {
      const at_ms = Date.now() + (offset.current ?? 0);
      if (offset.current !== null) setNow(at_ms);
      timer = setTimeout(tick, SECOND_MS - (at_ms % SECOND_MS) + LATE_MS);
    };
    timer = setTimeout(tick, SECOND_MS);
    return () => {
      source.close();
      clearTimeout(again);
      clearTimeout(timer);
      stop();
    };
  }, [revalidate, madeAt, madeFor, shownAt]);
  return { now_ms: now, away };
}
