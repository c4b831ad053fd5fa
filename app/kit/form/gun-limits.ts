import { GUN_BOUNDS } from "#core/models/bounds";

/** Limits of what may be typed: the deposition model's own. */
export const GUN_LIMITS = {
  fluidRate: GUN_BOUNDS.fluidRate_m3_s,
  turns: { min: 0.1, max: 10 },
  pressure: GUN_BOUNDS.pressure_Pa,
  /** At the hose about twice as much. */
  pressureRead: { min: 0.3e5, max: 11.5e5 },
  distance: GUN_BOUNDS.distance_m,
  overlap: GUN_BOUNDS.overlap,
  handSpeed: GUN_BOUNDS.handSpeed_m_s,
  fan: GUN_BOUNDS.fan_m,
  reducer: GUN_BOUNDS.reducer,
} as const;
