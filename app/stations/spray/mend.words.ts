import { MEND_CARDS, type MendCardId, type MendRun } from "#core/models/prep/mend-cards";
import { showSpan } from "#core/kernel/units/format";

/** The headline of a card: what is in hand, what it waits for, until when it has to be done. */
export function mendSentence(card: MendCardId | null, run: MendRun | null, now_ms: number): { main: string; rest: string } {
  if (!card) return { main: "Something in the wet coat?", rest: "Mend it on the way." };
  const { name, steps } = MEND_CARDS[card];
  if (!run) return { main: `${name}.`, rest: `${steps.length} steps.` };
  if (!run.step) return { main: `${name}:`, rest: "mended." };
  if (run.from_ms !== null && run.from_ms > now_ms)
    return { main: `${name}: step ${run.done + 1} of ${steps.length}`, rest: `in ${showSpan((run.from_ms - now_ms) / 1000)}.` };
  if (run.until_ms !== null)
    return {
      main: `${name}: step ${run.done + 1} of ${steps.length}`,
      rest: run.until_ms > now_ms ? `within ${showSpan((run.until_ms - now_ms) / 1000)}.` : "it has set by now: leave it.",
    };
  return { main: `${name}: step ${run.done + 1} of ${steps.length}`, rest: "now." };
}
