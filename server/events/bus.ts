/** Tells every open window that something changed. One process, no queue: a window that missed an event reloads on reconnect. */
export interface Change {
  topic: "job" | "panel" | "clock" | "product" | "shop" | "people";
  id: string;
  /** Of a panel: the job it belongs to, so that a window on another panel of it knows. */
  jobId?: string | null;
}
/** A change as it is told to a window, with how many there are: the more, the more seldom each looks again. */
export type ToldChange = Change & { windows: number };
type Listener<C extends Change = Change> = (change: C) => void;

/** A change of the same thing is told to windows no sooner than this after the last: they look again once a second at most. */
export const CALM_MS = 200;

export interface EventBus {
  publish(change: Change): void;
  subscribe(listener: Listener): () => void;
  /** The same for windows: the first change at once, those of the same thing that follow close upon it together, at the end of `CALM_MS`. */
  subscribeCalmly(listener: Listener<ToldChange>): () => void;
  /** How many changes this process has told: a page made at one count has missed what was told up to another. */
  published(): number;
}

export function createEventBus(): EventBus {
  const listeners = new Set<Listener>();
  const windows = new Set<Listener<ToldChange>>();
  /** What windows were told of a moment ago, with what came of it since. */
  const told = new Map<string, { since: Change | null }>();
  let count = 0;
  const tellWindows = (key: string, change: Change) => {
    const heard = { ...change, windows: windows.size };
    windows.forEach((l) => l(heard));
    const just = { since: null as Change | null };
    told.set(key, just);
    setTimeout(() => {
      told.delete(key);
      if (just.since) tellWindows(key, just.since);
    }, CALM_MS).unref();
  };
  return {
    publish(change) {
      count++;
      listeners.forEach((l) => l(change));
      const key = `${change.topic} ${change.id}`;
      const just = told.get(key);
      if (just) just.since = change;
      else tellWindows(key, change);
    },
    published: () => count,
    subscribe: (listener) => join(listeners, listener),
    subscribeCalmly: (listener) => join(windows, listener),
  };
}

function join<C extends Change>(listeners: Set<Listener<C>>, listener: Listener<C>): () => void {
  listeners.add(listener);
  return () => void listeners.delete(listener);
}
