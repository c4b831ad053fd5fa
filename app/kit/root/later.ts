import { useEffect, useState } from "react";

/** A part of the program that no page needs to be read: fetched when it is asked for, or when the browser has nothing else to do. */
export interface Later<T> {
  get(): Promise<T>;
  /** What has been fetched already. */
  now(): T | null;
}

export function later<T>(load: () => Promise<T>): Later<T> {
  let got: Promise<T> | null = null;
  let value: T | null = null;
  const get = () =>
    (got ??= load().then(
      (v) => (value = v),
      (error: unknown) => {
        got = null; // the server was away: asked for again, it is fetched again
        throw error;
      },
    ));
  return { get, now: () => value };
}

/** After the page has settled: long enough for what it shows, soon enough that the server is still there. */
const IDLE_MS = 1500;

/** The part once it is here; null before. It is fetched at once when `wanted`, before that when idle, unless it may wait until it is. */
export function useLater<T>(part: Later<T>, wanted: boolean, mayWait = false): T | null {
  const [value, setValue] = useState<T | null>(() => part.now());
  useEffect(() => {
    if (value !== null || (mayWait && !wanted)) return;
    let gone = false;
    const fetchIt = () =>
      void part.get().then(
        (v) => {
          if (!gone) setValue(() => v);
        },
        () => {}, // asked for again when it is wanted again
      );
    const timer = setTimeout(fetchIt, wanted ? 0 : IDLE_MS);
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [part, wanted, mayWait, value]);
  return value;
}
