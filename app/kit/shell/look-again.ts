/** Changes of one burst are fetched once; looks begin no closer than `apart_ms`, and no change waits longer for one. */
export const LOOK = { burst_ms: 100, apart_ms: 1100, settle_ms: 1200 } as const;

/**
 * When to look again after changes: soon after the last of a burst, once a second while they keep coming at whatever rate (twenty windows that
 * looked after each would be all that a shop's machine does), and once more when they are over (an answer that was under way while it was
 * written may be a moment old). A look still under way is not overtaken: the next waits for it.
 * @param look fetches anew @param clock timers, so that a test moves them
 */
export function lookAgain(look: () => Promise<void>, clock: Pick<typeof globalThis, "setTimeout" | "clearTimeout"> = globalThis) {
  let soon: ReturnType<typeof setTimeout> | undefined;
  let settle: ReturnType<typeof setTimeout> | undefined;
  /** The first change that no look has begun after. */
  let unseen_ms: number | null = null;
  let begun_ms = -Infinity;
  let looking = false;
  let asked = false;
  const now = () => {
    clock.clearTimeout(soon);
    if (looking) {
      asked = true;
      return;
    }
    looking = true;
    unseen_ms = null;
    begun_ms = performance.now();
    const leftPage = () => {}; // the page was left meanwhile: nothing to see
    void look()
      .catch(leftPage)
      .finally(() => {
        looking = false;
        if (!asked) return;
        asked = false;
        changed();
      });
  };
  function changed(): void {
    clock.clearTimeout(soon);
    clock.clearTimeout(settle);
    const at_ms = performance.now();
    unseen_ms ??= at_ms;
    const due_ms = Math.max(begun_ms + LOOK.apart_ms, Math.min(at_ms + LOOK.burst_ms, unseen_ms + LOOK.apart_ms));
    soon = clock.setTimeout(now, Math.max(0, due_ms - at_ms));
    settle = clock.setTimeout(now, LOOK.settle_ms);
  }
  return {
    changed,
    stop: () => {
      clock.clearTimeout(soon);
      clock.clearTimeout(settle);
    },
  };
}
