import { SUBSTRATE_TEXTURE } from "../constants";
import type { FlowSetting } from "../flow-window";

/** For tests and measurements: the gun and the two coats that the reference program starts from. */
export const REFERENCE_GUN = { fluidRate_m3_s: 230e-6 / 60, pressure_Pa: 193053, distance_m: 0.175, overlap: 0.5, handSpeed_m_s: 0.34 };
export const REFERENCE_SETTING: FlowSetting = {
  conditions: {
    air_K: 295.15,
    speed: "medium",
    volumeSolids: 0.475,
    reducer: 0,
    airSpeed_m_s: 0.3,
    tilt_rad: Math.PI / 2,
    edge: 1,
    below: SUBSTRATE_TEXTURE.basecoat,
  },
  coats: [
    { gun: REFERENCE_GUN, flash_s: 600 },
    { gun: REFERENCE_GUN, flash_s: 0 },
  ],
};
/** The same with its last coat sprayed otherwise. */
export const referenceWith = (change: Partial<typeof REFERENCE_GUN>): FlowSetting => ({
  ...REFERENCE_SETTING,
  coats: [REFERENCE_SETTING.coats[0]!, { gun: { ...REFERENCE_GUN, ...change }, flash_s: 0 }],
});
