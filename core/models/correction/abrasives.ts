/** Median grain d50 and its tolerance, m. P240–P2500: FEPA 43-1/-2, ISO 6344 (from memory). P3000, P5000: not standardised, defaults of ours. */
export const GRAIN_M = {
  P240: [58.5e-6, 2e-6],
  P280: [52.2e-6, 2e-6],
  P320: [46.2e-6, 1.5e-6],
  P360: [40.5e-6, 1.5e-6],
  P400: [35e-6, 1.5e-6],
  P500: [30.2e-6, 1.5e-6],
  P600: [25.8e-6, 1e-6],
  P800: [21.8e-6, 1e-6],
  P1000: [18.3e-6, 1e-6],
  P1200: [15.3e-6, 1e-6],
  P1500: [12.6e-6, 1e-6],
  P2000: [10.3e-6, 0.8e-6],
  P2500: [8.4e-6, 0.5e-6],
  P3000: [7e-6, 1.5e-6],
  P5000: [4.5e-6, 1.5e-6],
} as const satisfies Record<string, readonly [number, number]>;
export type Grit = keyof typeof GRAIN_M;

/** Scratch depth as a share of d50 and its uncertainty, by what backs the paper. Defaults of ours. */
export const BACKING = { hard: [0.25, 0.07], medium: [0.2, 0.06], soft: [0.13, 0.05] } as const satisfies Record<
  string,
  readonly [number, number]
>;
export type Backing = keyof typeof BACKING;

/** Removal of one polishing step, m: common practice and defaults of ours. */
export const POLISH_M = { compound: [1.2e-6, 0.5e-6], polish: [0.4e-6, 0.2e-6], ultrafine: [0.15e-6, 0.1e-6] } as const satisfies Record<
  string,
  readonly [number, number]
>;
export type Polish = keyof typeof POLISH_M;

/** Depth of the scratches a grit leaves. @example scratchDepth("P1500", "medium").depth_m // 2.52e-6 */
export function scratchDepth(grit: Grit, backing: Backing): { depth_m: number; u_m: number; uBacking_m: number } {
  const [grain, tolerance] = GRAIN_M[grit];
  const [share, uShare] = BACKING[backing];
  // How deep a backing scratches is one unknown for all grits on it; the grain's tolerance is each grit's own.
  return { depth_m: share * grain, u_m: Math.hypot(grain * uShare, (share * tolerance) / Math.sqrt(3)), uBacking_m: grain * uShare };
}
