import { lower } from "./capital";
import { type StepHold, isNo } from "#core/course/step-hold";
import { whenText } from "./when";

/** What comes first, in two or three words: "peeling first", "air too cold", "the pot is over". */
export function holdName(hold: StepHold, now_ms: number): string {
  switch (hold.by) {
    case "fault":
      return `${hold.fault.name.toLowerCase()} first`;
    case "climate":
      return lower(hold.check.what);
    case "pot":
      return "the pot is over";
    case "soon":
      return `not before ${whenText(hold.until_ms, now_ms)}`;
  }
}

/** What was done, with what spoke against it: "Coat 2 logged, though: not before 14:20; the pot is over". */
export const doneAgainst = (done: string, against: readonly StepHold[], now_ms: number): string =>
  against.length === 0 ? done : `${done}, though: ${against.map((h) => holdName(h, now_ms)).join("; ")}`;

/** The first that says no, and else the first of all; null for none. */
export const firstHold = (holds: readonly StepHold[]): StepHold | null => holds.find(isNo) ?? holds[0] ?? null;
