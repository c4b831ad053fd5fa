import { createContext, useContext, useSyncExternalStore } from "react";
import { type Outbox, type OutboxState, createOutbox } from "./outbox";

/** The window's outbox: one for all its pages, as long as the window lives. */
export const outbox = createOutbox();
export const OutboxContext = createContext<Outbox>(outbox);

const NOTHING: OutboxState = { waiting: [], refused: [], held: null };

/** The outbox and what is in it now. */
export function useOutbox(): { outbox: Outbox; state: OutboxState } {
  const own = useContext(OutboxContext);
  const state = useSyncExternalStore(
    (listener) => own.subscribe(listener),
    () => own.get(),
    () => NOTHING,
  );
  return { outbox: own, state };
}
