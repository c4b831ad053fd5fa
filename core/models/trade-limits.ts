import { SHEET_K } from "./product/sheet-air";

/**
 * Limits of the trade that more than one model or page goes by: one figure each, with its unit in its name and where it comes from. What the
 * judge goes by stands in `judge/limits`.
 */

/** Air where nobody logged a climate: that of the product sheets, 20 °C. Common practice. */
export const UNLOGGED_AIR_K = SHEET_K;
/** A gun held farther than this lays dry, rough drops. Common practice (15 to 20 cm is usual). */
export const FAR_GUN_M = 0.21;
/** Below this the drops come out coarse. Common practice (about 22 psi). */
export const LOW_PRESSURE_PA = 1.55e5;
/** Clear, and all layers together, that no further coat may go beyond; the second where base is renewed. Common practice. */
export const MOST_CLEAR_M = 160e-6;
export const MOST_TOTAL_M = 300e-6;
export const MOST_TOTAL_REBASE_M = 350e-6;
/** What flatting over a build takes off (P800 on a soft interface, with the peel). Common practice, 8 ± 3 µm. */
export const FLAT_M = 8e-6;
export const U_FLAT_M = 3e-6;
/** Sanding a panel flat before further clear, and cleaning it. Common practice. */
export const FLATTEN_S = 45 * 60;
