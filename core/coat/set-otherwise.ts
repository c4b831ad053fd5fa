import { requireNumber } from "../kernel/guard";
import { GUN_BOUNDS } from "../models/bounds";
import { fluidFromTurns } from "../models/spray/fluid-from-turns";
import type { BodyOf } from "../record/bodies";

/** What a hand sets otherwise than its coat was planned; what is not said stays as planned. */
export interface SetOtherwise {
  handSpeed_m_s?: number | undefined;
  /** Needle, turns out: of a gun whose fluid is known from its turns. */
  turns?: number | undefined;
  /** Of a gun whose fluid was measured. */
  fluidRate_m3_s?: number | undefined;
}

/**
 * Settings of a coat with what was set otherwise. Turns change the fluid in the proportion of the needle, so that a mix thinner than usual stays
 * thinner. @throws RangeError for a figure out of range
 */
export function setOtherwise(planned: BodyOf<"coat">["settings"], { handSpeed_m_s, turns, fluidRate_m3_s }: SetOtherwise) {
  const settings = { ...planned };
  if (handSpeed_m_s !== undefined) settings.handSpeed_m_s = requireNumber("handSpeed_m_s", handSpeed_m_s, GUN_BOUNDS.handSpeed_m_s);
  if (fluidRate_m3_s !== undefined)
    Object.assign(settings, {
      fluidRate_m3_s: requireNumber("fluidRate_m3_s", fluidRate_m3_s, GUN_BOUNDS.fluidRate_m3_s),
      fluidFrom: "measured",
      turns: null,
    });
  if (turns !== undefined) {
    const now_m3_s = fluidFromTurns(turns).fluidRate_m3_s;
    const before_m3_s = planned.fluidFrom === "turns" && planned.turns ? fluidFromTurns(planned.turns).fluidRate_m3_s : null;
    const thinner = before_m3_s ? planned.fluidRate_m3_s / before_m3_s : 1;
    Object.assign(settings, { fluidRate_m3_s: thinner * now_m3_s, fluidFrom: "turns", turns });
  }
  return settings;
}
