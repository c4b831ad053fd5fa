import { type StepHold, isNo } from "#core/course/holds";
import { type PanelShape, placeInWords } from "#core/kernel/geometry/shapes";
import { whenText } from "./when";

/** What comes first, in two or three words: "peeling first", "air too cold", "the pot is over". */
export function holdName(hold: StepHold, now_ms: number): string {
  switch (hold.by) {
    case "fault":
      return `${hold.fault.name.toLowerCase()} first`;
    case "climate":
      return hold.check.what.charAt(0).toLowerCase() + hold.check.what.slice(1);
    case "pot":
      return "the pot is over";
    case "soon":
      return `not before ${whenText(hold.until_ms, now_ms)}`;
  }
}

/** The same as a sentence with its reason. */
export function stepHoldWords(hold: StepHold, shape: Pick<PanelShape, "outline" | "sides">, now_ms: number): string {
  switch (hold.by) {
    case "fault": {
      const where = hold.fault.where === "panel" ? "" : ` at the ${placeInWords(hold.fault.at, shape)}`;
      return `${hold.fault.name} is marked${where}: ${UNTIL[hold.fault.until]} first, or take the mark out where it was seen to.`;
    }
    case "climate":
      return `${hold.check.what}: ${hold.check.why}. Log the climate again when it has changed.`;
    case "pot":
      return `The pot was over at ${whenText(hold.over_ms, now_ms)}: mix fresh, and throw that one out.`;
    case "soon":
      return `Not before ${whenText(hold.until_ms, now_ms)}.`;
  }
}
const UNTIL = {
  hard: "it waits until it is hard",
  dry: "it dries out warm",
  stripped: "it is taken back to what is sound",
  resprayed: "it is sprayed again below",
} as const;

/** What was done, with what spoke against it: "Coat 2 logged, though: not before 14:20; the pot is over". */
export const doneAgainst = (done: string, against: readonly StepHold[], now_ms: number): string =>
  against.length === 0 ? done : `${done}, though: ${against.map((h) => holdName(h, now_ms)).join("; ")}`;

/** The first that says no, and else the first of all; null for none. */
export const firstHold = (holds: readonly StepHold[]): StepHold | null => holds.find(isNo) ?? holds[0] ?? null;
