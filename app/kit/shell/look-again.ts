/** Changes of one burst are fetched once; looks begin no closer than `apartOf` says, and no change waits longer for one. */
export const LOOK = { burst_ms: 100, least_apart_ms: 600, apart_ms: 1100, settle_ms: 1200, looks_a_second: 20, spread_ms: 200 } as const;

/** How far apart the looks of one window begin: the shop's machine answers so many of all windows together, a few windows look more often. */
export function apartOf(windows: number): number {
  return Math.min(LOOK.apart_ms, Math.max(LOOK.least_apart_ms, (1000 * windows) / LOOK.looks_a_second));
}

/**
 * When to look again after changes: soon after the last of a burst, once a second or more often while they keep coming at whatever rate (twenty
 * windows that looked after each would be all that a shop's machine does), and once more when they are over (an answer that was under way while it was
 * written may be a moment old). A look still under way is not overtaken: the next waits for it.
 * All windows hear of a change in the same moment: each waits a little of its own, so that what is sent meanwhile need not wait for all of them.
 * @param look fetches anew @param clock timers, so that a test moves them @param share 0 to 1, of the little that this window waits
 */
export function lookAgain(
  look: () => Promise<void>,
  clock: Pick<typeof globalThis, "setTimeout" | "clearTimeout"> = globalThis,
  share = Math.random(),
) {
  let soon: ReturnType<typeof setTimeout> | undefined;
  let settle: ReturnType<typeof setTimeout> | undefined;
  /** The first change that no look has begun after. */
  let unseen_ms: number | null = null;
  let begun_ms = -Infinity;
  let looking = false;
  let asked = false;
  let windows = 1;
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
  /** @param among so many windows heard of it; as many as last time where nobody says */
  function changed(among = windows): void {
    windows = among;
    clock.clearTimeout(soon);
    clock.clearTimeout(settle);
    const at_ms = performance.now();
    unseen_ms ??= at_ms;
    const apart_ms = apartOf(windows);
    const own_ms = windows > 1 ? share * LOOK.spread_ms : 0;
    const due_ms = Math.max(begun_ms + apart_ms, Math.min(at_ms + LOOK.burst_ms + own_ms, unseen_ms + apart_ms));
    soon = clock.setTimeout(now, Math.max(0, due_ms - at_ms));
    settle = clock.setTimeout(now, LOOK.settle_ms + own_ms);
  }
  return {
    changed,
    stop: () => {
      clock.clearTimeout(soon);
      clock.clearTimeout(settle);
    },
  };
}
