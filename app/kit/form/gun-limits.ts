/** Limits of what may be typed: the deposition model's own. */
export const GUN_LIMITS = {
  fluidRate: { min: 10e-6 / 60, max: 1000e-6 / 60 },
  turns: { min: 0.1, max: 10 },
  pressure: { min: 0.3e5, max: 6e5 },
  /** At the hose about twice as much. */
  pressureRead: { min: 0.3e5, max: 11.5e5 },
  distance: { min: 0.05, max: 0.5 },
  overlap: { min: 0, max: 0.9 },
  handSpeed: { min: 0.05, max: 3 },
  fan: { min: 0.01, max: 1 },
  reducer: { min: 0, max: 1 },
} as const;
