import { useEffect, useState, useSyncExternalStore } from "react";
import { useBlocker } from "react-router";
import { deviceHere, isWaiting, subscribe } from "~/kit/http/wait-for-server";

/** So long an answer is waited for before the server counts as away. */
const ANSWER_MS = 3000;
/** So long it is said that the page stayed. */
const SAID_MS = 12_000;

/** Whether the server answers at all. */
async function answers(): Promise<boolean> {
  try {
    await fetch("/healthz", { cache: "no-store", signal: AbortSignal.timeout(ANSWER_MS) });
    return true;
  } catch {
    return false;
  }
}

/**
 * With the server away another page cannot be shown, and the browser would put an error of its own in this one's place: the page stays.
 * @param away the stream of this window has broken off: the server is asked before anything is left
 * @returns whether it is to be said now (also while a look waits for the server); what says it may not have to be fetched
 */
export function useStay(away: () => boolean): boolean {
  const blocker = useBlocker(
    ({ currentLocation, nextLocation }) => away() && !deviceHere()?.ready() && currentLocation.pathname !== nextLocation.pathname,
  );
  const [stayed, setStayed] = useState(0);
  useEffect(() => {
    if (blocker.state !== "blocked") return;
    let gone = false;
    void answers().then((there) => {
      if (gone) return;
      if (there) return blocker.proceed();
      blocker.reset();
      setStayed((n) => n + 1);
    });
    return () => {
      gone = true;
    };
  }, [blocker]);
  const [over, setOver] = useState(0);
  useEffect(() => {
    const timer = setTimeout(() => setOver(stayed), SAID_MS);
    return () => clearTimeout(timer);
  }, [stayed]);
  const waits = useSyncExternalStore(subscribe, isWaiting, () => false);
  return stayed > over || waits;
}
