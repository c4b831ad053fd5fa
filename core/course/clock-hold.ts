import type { Clock } from "../models/clock/clock-state";
import type { Standing } from "./standing";
import { type StepHold, holdsAt, isNo } from "./step-hold";

/** A clock as it is shown, with what may say no to the step that it leads to. */
export interface ShownClock extends Clock {
  holds: readonly StepHold[];
}

/** What follows a clock, by the step that the panel's standing holds back. */
const LEADS_TO: Readonly<Record<string, readonly string[]>> = {
  coat: ["coat"],
  flatten: ["flatten"],
  work: ["readAfter", "correct", "measureAgain"],
};

/** What of a panel's standing belongs to one of its clocks; none for one that leads to no such step, and for a pot's, whose label is its product. */
export function holdsOfClock(
  { kind, label }: Pick<Clock, "kind" | "label">,
  standing: Pick<Standing, "action"> | null,
): readonly StepHold[] {
  const action = kind === "pot" || kind === "stir" ? null : standing?.action;
  return action && LEADS_TO[label.split(" ")[0]!]?.includes(action.kind) ? action.holds : [];
}

/** What says no now to the step that a clock leads to; null: nothing does. */
export const clockHeld = ({ holds }: Pick<ShownClock, "holds">, now_ms: number): StepHold | null =>
  holdsAt(holds, now_ms).find(isNo) ?? null;
