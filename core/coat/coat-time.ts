import { inRange } from "../kernel/guard";
import type { GunSettings } from "../models/spray/deposit";
import type { CoatVolume } from "../models/spray/coat-over";
import { USUAL_GUN } from "../models/spray/usual-gun";
import { volumeOfCoat } from "../models/ways/way-volumes";
import type { PanelBrief } from "../panel/brief";
import type { PanelFacts } from "../panel/derive-panel";
import { type NextAsked, nextCoat } from "./next-coat";

/** Edges first, a look along the wet edge, walking round: beside the passes themselves. Common practice. */
const HANDLING_S = 120;
const HALF_MINUTE_S = 30;

/** How long coats of a panel took that were started and stopped: their mean; null where none was timed. */
function timedCoat_s({ coats, backCoats }: Pick<PanelFacts, "coats" | "backCoats">): number | null {
  const timed = [...backCoats, ...coats].flatMap(({ entry: { body } }) =>
    body.duration_s !== null && body.duration_s > 0 ? [body.duration_s] : [],
  );
  return timed.length > 0 ? timed.reduce((a, t) => a + t, 0) / timed.length : null;
}

/** A coat's time, for course, booth plan and calendar: as this part's coats were timed, else its strokes and what goes round them, to whole half minutes. */
export const coatTime_s = (facts: Pick<PanelFacts, "coats" | "backCoats">, { time_s }: Pick<CoatVolume, "time_s">): number =>
  timedCoat_s(facts) ?? Math.ceil((HANDLING_S + time_s) / HALF_MINUTE_S) * HALF_MINUTE_S;

/** The next coat's time, with the gun in the hand at the way's pace. */
export function nextCoatTime_s(asked: NextAsked & { brief: PanelBrief; facts: PanelFacts }): number {
  const { brief, facts, way } = asked;
  const { settings, zone, number } = nextCoat(asked);
  const { outline } = brief.shape;
  const { rows } = brief;
  const { trigger } = way;
  // Where nobody could have sprayed with what was logged, a usual gun over the part.
  const over = (gun: GunSettings) => volumeOfCoat(outline, gun, { zone, trigger, rows, number });
  return coatTime_s(facts, inRange(() => over(settings)) ?? over(USUAL_GUN));
}
