import type { StepHold } from "#core/course/step-hold";
import { placeInWords } from "#core/kernel/geometry/place-in-words";
import type { PanelShape } from "#core/kernel/geometry/shapes";
import { whenText } from "./when";

/** What says no to a step, as a sentence with its reason. */
export function stepHoldWords(hold: StepHold, shape: Pick<PanelShape, "outline" | "sides">, now_ms: number): string {
  switch (hold.by) {
    case "fault": {
      const where = hold.fault.where === "panel" ? "" : ` at the ${placeInWords(hold.fault.at, shape)}`;
      return `${hold.fault.name} is marked${where}: ${UNTIL[hold.fault.until]} first. Once it is, say so at its mark.`;
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
