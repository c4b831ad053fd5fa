import { MEND_CARDS, type MendCardId } from "../models/prep/mend-cards";
import type { PanelFacts } from "./derive-panel";

/** A card that is being followed, and at which of its steps; null: none is. */
export function mendingOf({ mends }: Pick<PanelFacts, "mends">): { card: MendCardId; name: string; step: number; of: number } | null {
  const mend = mends.find((m) => m.step !== null);
  if (!mend) return null;
  const { name, steps } = MEND_CARDS[mend.card];
  return { card: mend.card, name, step: mend.done + 1, of: steps.length };
}
