import { holdsAt, isNo } from "#core/course/step-hold";
import { LAYER_NAMES } from "#core/models/prep/layer-names";
import { capital } from "./capital";
import { holdName } from "./hold-name";
import type { Standing } from "#core/course/standing";
import { whenText } from "./when";

/** What the hand does next, in words, with its time where it is still to come. */
export function actionWords(standing: Standing, now_ms: number): string {
  const { action, stop, defects } = standing;
  if (!action) return "Handed over";
  const { kind, number, of, side, layer, from_ms, grit, holds } = action;
  const no = holdsAt(holds, now_ms).find(isNo);
  const held = no ? `: ${holdName(no, now_ms)}` : "";
  const face = side === "back" ? ", back" : "";
  const when = from_ms !== null && from_ms > now_ms + SOON_MS ? `, from ${whenText(from_ms, now_ms)}` : "";
  const late = isPast(standing, now_ms) ? ": past its window" : "";
  switch (kind) {
    case "readBefore":
      return "Take before-readings";
    case "colour":
      return layer ? `${capital(LAYER_NAMES[layer])} ${number} of ${of}${face}${held || `${when}${late}`}` : "Go on";
    case "coat":
      return `Coat ${number} of ${of}${face}${held || `${when}${late}`}`;
    case "flatten":
      return `Sand flat, P${grit}${held || when}`;
    case "turn":
      return `Turn the part over${when}`;
    case "readAfter":
      return `Read the film after clear${held || when}`;
    case "correct":
      if (held) return `Correct${held}`;
      if (of === null) return defects > 0 ? `${defects} to put right` : "Read; decide what to do";
      return stop ? "Plan says stop: choose another way" : `Step ${number} of ${of}${when}`;
    case "measureAgain":
      return "Measure again after the last step";
    case "handOver":
      return `Ready to hand over${when}`;
    default:
      return "Go on";
  }
}

/** Its window has closed. */
export const isPast = ({ action }: Standing, now_ms: number): boolean => action?.latest_ms != null && action.latest_ms < now_ms;

/** Whether something says no to it now. */
export const isHeld = ({ action }: Standing, now_ms: number): boolean => holdsAt(action?.holds ?? [], now_ms).some(isNo);

/** Whether the next coat may go on now: nothing says no, its wait is over, its window is not. */
export const coatMayGoOn = (standing: Standing, now_ms: number): boolean =>
  standing.action?.kind === "coat" &&
  !isHeld(standing, now_ms) &&
  !isPast(standing, now_ms) &&
  (standing.action.from_ms ?? 0) <= now_ms + SOON_MS;

/** A step so near is now. */
const SOON_MS = 30_000;
