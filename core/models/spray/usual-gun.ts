import { toSi } from "../../kernel/units/convert";

/** Starting figures of a gun nobody has set yet: common practice. */
export const USUAL_GUN = {
  fluidRate_m3_s: 230e-6 / 60,
  turns: 2.25,
  pressure_Pa: toSi("pressure", 28, "psi"),
  distance_m: 0.175,
  overlap: 0.5,
  handSpeed_m_s: 0.34,
} as const;
