/** Of the simulated coat seen from above, beside the constants of the deposition and the flow model (docs/models.md, "A coat seen from above"). Defaults of ours. */
export const PANEL_FILM = {
  /** Half length of the cone's footprint along the pass against the width of its fan: sd of a Gaussian. */
  alongShare: 0.08,
  /** So many of those on either side carry all that lands. */
  alongReach: 3.5,
  /** Solvent over solids that stays in a film for as long as is simulated. */
  leastComposition: 0.02,
  /** Less solids than this in one cell at a time is nothing, m. */
  leastLanding_m: 1e-13,
  /** A film thinner than this neither dries nor moves, m. */
  leastFilm_m: 1e-9,
  /** Of what a cell holds, no more than this leaves through one face in a step. */
  mostMoved: 0.25,
  /** What hangs at a lower edge before it drips, in squares of the capillary length. */
  beadSquares: 1,
} as const;

/** Sides of a cell and of a panel that are worked with. */
export const CELL_M = { min: 0.5e-3, max: 0.05 } as const;
export const SIDE_M = { min: 0.02, max: 4 } as const;
/** Cells of one panel at most. */
export const MOST_CELLS = 400_000;
/** After the last coat: by then nothing moves. */
export const SETTLES_S = 3600;
/** One step of the flow. */
export const STEP_S = { above: 0, max: 5 } as const;
