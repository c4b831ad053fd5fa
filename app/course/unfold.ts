import type { CourseStep, StepKind } from "#core/course/steps";

/** Steps that are worked in the card above the course; the others are a press in their row, or a wait. */
const CARDS: readonly StepKind[] = ["coat", "readBefore", "readAfter", "measureAgain", "inspect", "correct", "handOver", "flatten", "turn"];
/** Steps that take more than one entry: they stay open until somebody goes on, and can be opened again. */
const STAYS: readonly StepKind[] = ["readBefore", "readAfter", "measureAgain", "inspect", "correct"];

const isCard = (step: CourseStep): boolean => CARDS.includes(step.kind) || (step.kind === "colour" && step.layer !== null);

/** Whether a step's row unfolds it: it may be done now, or more may be said of it. */
export const unfolds = (step: CourseStep): boolean =>
  isCard(step) && (step.state === "open" || (step.state === "done" && STAYS.includes(step.kind)));

export const stays = (step: CourseStep): boolean => STAYS.includes(step.kind);

/**
 * The step that stands unfolded: the one that somebody opened, else the bake while the part is at the oven, else what the hand does next; before
 * anything is decided, or goes out, the part is looked over.
 * @param action what the hand does next
 */
export function unfoldedStep(steps: readonly CourseStep[], action: CourseStep | null, opened: string | null): CourseStep | null {
  const of = (kind: StepKind) => steps.find((s) => s.kind === kind && s.state !== "done" && s.state !== "missed") ?? null;
  const chosen = steps.find((s) => s.id === opened && s.state !== "missed");
  if (chosen) return chosen;
  if (!action) return null;
  const bake = of("bake");
  if (bake && atTheOven(steps)) return bake;
  if ((action.kind === "correct" && action.of === null) || action.kind === "handOver") return of("inspect") ?? action;
  return isCard(action) ? action : null;
}

/** All coats are on and the part is not cured: the hand is at the oven, if anywhere. */
const atTheOven = (steps: readonly CourseStep[]): boolean =>
  steps.every((s) => s.kind !== "coat" || s.state === "done" || s.state === "missed") &&
  steps.some((s) => (s.kind === "purge" || s.kind === "cure") && s.state === "now");
