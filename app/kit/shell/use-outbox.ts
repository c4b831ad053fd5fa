import { createContext, useContext, useEffect, useState, useSyncExternalStore } from "react";
import { type Outbox, type OutboxState, createOutbox } from "./outbox";

export const OutboxContext = createContext<Outbox | null>(null);

/** The window's outbox: made once by the shell, working as long as the window lives. */
export function useNewOutbox(): Outbox {
  const [outbox] = useState(createOutbox);
  useEffect(() => {
    void outbox.resume();
    return () => outbox.stop();
  }, [outbox]);
  return outbox;
}

const NOTHING: OutboxState = { waiting: [], refused: [], held: null };

/** The outbox and what is in it now. */
export function useOutbox(): { outbox: Outbox; state: OutboxState } {
  const outbox = useContext(OutboxContext);
  if (!outbox) throw new Error("the shell's outbox is missing");
  const state = useSyncExternalStore(
    (listener) => outbox.subscribe(listener),
    () => outbox.get(),
    () => NOTHING,
  );
  return { outbox, state };
}
