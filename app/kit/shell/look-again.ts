/** Changes of one burst are fetched once; a look that has been asked for waits no longer than `longest_ms`, however many changes follow. */
export const LOOK = { burst_ms: 100, longest_ms: 1000, settle_ms: 1200 } as const;

/**
 * When to look again after changes: soon after the last of a burst, at least once a second while they keep coming, and once more when they are
 * over (an answer that was under way while it was written may be a moment old). A look still under way is not overtaken: the next waits for it.
 * @param look fetches anew @param clock timers, so that a test moves them
 */
export function lookAgain(look: () => Promise<void>, clock: Pick<typeof globalThis, "setTimeout" | "clearTimeout"> = globalThis) {
  let soon: ReturnType<typeof setTimeout> | undefined;
  let latest: ReturnType<typeof setTimeout> | undefined;
  let settle: ReturnType<typeof setTimeout> | undefined;
  let looking = false;
  let asked = false;
  const clear = (...timers: (ReturnType<typeof setTimeout> | undefined)[]) => timers.forEach((t) => clock.clearTimeout(t));
  const now = () => {
    clear(soon, latest);
    latest = undefined;
    if (looking) {
      asked = true;
      return;
    }
    looking = true;
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
    clear(soon, settle);
    soon = clock.setTimeout(now, LOOK.burst_ms);
    latest ??= clock.setTimeout(now, LOOK.longest_ms);
    settle = clock.setTimeout(now, LOOK.settle_ms);
  }
  return { changed, stop: () => clear(soon, latest, settle) };
}
