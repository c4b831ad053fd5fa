/** Tells every open window that something changed. One process, no queue: a window that missed an event reloads on reconnect. */
export interface Change {
  topic: "job" | "panel" | "clock" | "product" | "shop";
  id: string;
  /** Of a panel: the job it belongs to, so that a window on another panel of it knows. */
  jobId?: string | null;
}
type Listener = (change: Change) => void;

export interface EventBus {
  publish(change: Change): void;
  subscribe(listener: Listener): () => void;
  /** How many changes this process has told: a page made at one count has missed what was told up to another. */
  published(): number;
}

export function createEventBus(): EventBus {
  const listeners = new Set<Listener>();
  let count = 0;
  return {
    publish(change) {
      count++;
      listeners.forEach((l) => l(change));
    },
    published: () => count,
    subscribe(listener) {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
  };
}
