/** Tells every open window that something changed. One process, no queue: a window that missed an event reloads on reconnect. */
export interface Change {
  topic: "job" | "panel" | "clock" | "product" | "shop";
  id: string;
}
type Listener = (change: Change) => void;

export interface EventBus {
  publish(change: Change): void;
  subscribe(listener: Listener): () => void;
}

export function createEventBus(): EventBus {
  const listeners = new Set<Listener>();
  return {
    publish: (change) => listeners.forEach((l) => l(change)),
    subscribe(listener) {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
  };
}
