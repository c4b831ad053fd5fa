import { requireNumber } from "../../kernel/guard";
import { type Backing, type Grit, POLISH_M, type Polish, scratchDepth } from "./abrasives";

/** What drives the paper: what a step takes off is learnt apart for each. */
export const SANDING_TOOLS = ["machine", "hand", "pad"] as const;
export type SandingTool = (typeof SANDING_TOOLS)[number];
export type RemovalStep = { grit: Grit; backing: Backing; tool?: SandingTool | undefined } | { polish: Polish };

/** A step sands 25 % deeper than its own scratches, with 15 % standard deviation. Defaults of ours. */
export const OVER_SANDING = { share: 0.25, sd: 0.15 } as const;
/** Peak to valley of a sprayed texture for each µm of its rms waviness. */
export const PEAK_TO_VALLEY_OF_RMS = { factor: 5, u: 0.5 } as const;

export interface Texture {
  /** Peak to valley of what is there, and of what is wanted (the neighbour's); 0 wanted for a flat finish. */
  peakToValley_m: number;
  u_m: number;
  wanted_m?: number;
}

export interface Removal {
  removal_m: number;
  u_m: number;
  /** Parts of `u_m` that are one unknown for several removals (how deep a backing scratches, how this shop sands), by its name: those add. */
  common_m?: Readonly<Record<string, number>> | undefined;
}

/** Removals one after another: they add; what is one unknown for several of them adds as well, all other doubts in squares. */
export function sumOf(list: readonly Removal[]): Removal {
  const common_m: Record<string, number> = {};
  let own2 = 0;
  for (const { u_m, common_m: shared = {} } of list) {
    own2 += Math.max(0, u_m ** 2 - Object.values(shared).reduce((a, c) => a + c * c, 0));
    for (const [cause, part] of Object.entries(shared)) common_m[cause] = (common_m[cause] ?? 0) + part;
  }
  return {
    removal_m: list.reduce((a, s) => a + s.removal_m, 0),
    u_m: Math.hypot(Math.sqrt(own2), ...Object.values(common_m)),
    common_m,
  };
}

/** A removal made so many times larger, its doubts with it. */
export const scaled = ({ removal_m, u_m, common_m }: Removal, factor: number): Removal => ({
  removal_m: factor * removal_m,
  u_m: factor * u_m,
  ...(common_m ? { common_m: Object.fromEntries(Object.entries(common_m).map(([k, v]) => [k, factor * v])) } : {}),
});

/** Peak to valley from an rms waviness: PV = (5 ± 0.5)·Rq. @throws RangeError */
export function peakToValleyFromRms(rms_m: number, uRms_m = 0.1 * rms_m): { peakToValley_m: number; u_m: number } {
  requireNumber("rms_m", rms_m, { min: 0 });
  const { factor, u } = PEAK_TO_VALLEY_OF_RMS;
  return { peakToValley_m: factor * rms_m, u_m: Math.hypot(rms_m * u, factor * requireNumber("uRms_m", uRms_m, { min: 0 })) };
}

/**
 * Clear each step takes off and their sum. A sanding step takes 1.25 × its own scratch depth; the first one also takes its share of the
 * texture (the gauge rides on the peaks, so the whole of it is charged).
 * @throws RangeError for a negative texture.
 * @example P1500 medium, P3000 soft, compound, polish over 3 ± 0.4 µm: 8.8875 ± 1.3178 µm
 */
export function planRemoval(
  steps: readonly RemovalStep[],
  texture: Texture = { peakToValley_m: 0, u_m: 0 },
): { steps: Removal[]; total: Removal } {
  const peak = requireNumber("peakToValley_m", texture.peakToValley_m, { min: 0, max: 1e-3 });
  const wanted = requireNumber("wanted_m", texture.wanted_m ?? 0, { min: 0 });
  requireNumber("u_m", texture.u_m, { min: 0 });
  const share = peak > 0 ? Math.max(0, 1 - wanted / peak) : 0;
  let levelled = false;
  const each = steps.map((step): Removal => {
    if ("polish" in step) {
      const [removal_m, u_m] = POLISH_M[step.polish];
      return { removal_m, u_m };
    }
    const { depth_m, u_m: uDepth, uBacking_m } = scratchDepth(step.grit, step.backing);
    const own = (1 + OVER_SANDING.share) * depth_m;
    const uOwn = Math.hypot((1 + OVER_SANDING.share) * uDepth, depth_m * OVER_SANDING.sd);
    const common_m = { [step.backing]: (1 + OVER_SANDING.share) * uBacking_m };
    if (levelled) return { removal_m: own, u_m: uOwn, common_m };
    levelled = true;
    return { removal_m: own + share * peak, u_m: Math.hypot(uOwn, share * texture.u_m), common_m };
  });
  return {
    steps: each,
    total: sumOf(each),
  };
}
