import type { ExternalToast } from "sonner";

/** A message that can be undone, kept after it has gone from the screen. */
export interface Said {
  message: string;
  undo: () => void;
}
const KEPT = 8;
let said: readonly Said[] = [];

/** What was said lately and can still be undone, newest first. */
export const saidLately = (): readonly Said[] => said;

/** Keeps a message with its undo; whoever undoes it, from the screen or from the list, does so once. */
export function kept(message: string, options: ExternalToast = {}): ExternalToast {
  const { action } = options;
  if (!action || typeof action !== "object" || !("onClick" in action)) return options;
  const of: Said = {
    message,
    undo: () => {
      if (!said.includes(of)) return;
      said = said.filter((s) => s !== of);
      (action.onClick as () => void)();
    },
  };
  said = [of, ...said].slice(0, KEPT);
  return { ...options, action: { ...action, onClick: of.undo } };
}
