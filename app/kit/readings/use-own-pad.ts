import { useSyncExternalStore } from "react";

const PHONE = "(max-width: 639.98px)";
/** Null where the browser tells nothing of its width. */
const phone = () => globalThis.matchMedia?.(PHONE) ?? null;

/** On a phone the page brings its own number pad, and the telephone's stays away. */
export const useOwnPad = (): boolean =>
  useSyncExternalStore(
    (changed) => {
      const width = phone();
      width?.addEventListener("change", changed);
      return () => width?.removeEventListener("change", changed);
    },
    () => phone()?.matches ?? false,
    () => false,
  );
