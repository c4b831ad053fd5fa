import { FAR_GUN_M, LOW_PRESSURE_PA } from "../trade-limits";
import type { GunSettings } from "./deposit";

/** What of the gun's settings may be held against a coat. */
export type GunFinding = "far" | "close" | "slow" | "quick" | "lowPressure";
/** The film a coat laid, against what its sheet and its way want. */
export type FilmLaid = "thin" | "right" | "thick";

/**
 * How painters hold a gun on purpose: near with a fast hand (100 to 130 mm), in the middle, far with more fluid (200 to 250 mm), from 18 psi at the gun.
 * Common practice.
 */
const SCHOOLS = { nearest_m: 0.1, near_m: 0.13, farthest_m: 0.25, least_Pa: 1.2e5, slow_m_s: 0.25, quick_m_s: 0.5 } as const;

/**
 * What of a gun's settings speaks for a fault. A school of the trade is as good as the film it lays: inside one a setting is named only where the film
 * came out as that setting makes it. Beyond all of them it is named whatever came of it.
 * @param gun pressure at the gun, trigger pulled; told at the hose it says too little of the gun's
 */
export function gunFindings(gun: GunSettings & { pressureAt?: "gun" | "hose" | undefined }, film: FilmLaid): Set<GunFinding> {
  const { distance_m, handSpeed_m_s, pressure_Pa } = gun;
  const far = distance_m > FAR_GUN_M;
  const low = pressure_Pa < SCHOOLS.least_Pa || (far && pressure_Pa < LOW_PRESSURE_PA); // far and low together: coarse drops land dry
  const found: [GunFinding, boolean][] = [
    ["far", distance_m > SCHOOLS.farthest_m || (far && film === "thin")],
    ["close", distance_m < SCHOOLS.nearest_m || (distance_m < SCHOOLS.near_m && film === "thick")],
    ["slow", handSpeed_m_s < SCHOOLS.slow_m_s && film === "thick"],
    ["quick", handSpeed_m_s > SCHOOLS.quick_m_s && film === "thin"],
    ["lowPressure", gun.pressureAt !== "hose" && low],
  ];
  return new Set(found.flatMap(([what, so]) => (so ? [what] : [])));
}
