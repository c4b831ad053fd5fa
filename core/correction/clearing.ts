import { type Backing, GRAIN_M, type Grit, POLISH_M, scratchDepth } from "./abrasives";
import { requireNumber } from "../guard";
import { REMOVAL_SPREAD_M } from "./learn-removal";
import { OVER_SANDING, type Removal, type RemovalStep, type Texture, planRemoval } from "./removal-plan";

/** What a shop takes off against the forecast, as learnt from its own measured pairs. */
export interface ShopRemoval {
  factor: number;
  /** Standard uncertainty of ln(factor). */
  u_log: number;
}

/** Marks that a polish itself leaves. Defaults of ours. */
export const POLISH_LEAVES_M = { compound: 0.15e-6, polish: 0.05e-6 } as const;
/** A step that wants more passes than this skips too far: a grit belongs between. Default of ours. */
export const MOST_PASSES = 3;

export interface ClearedStep extends Removal {
  use: RemovalStep;
  /** Times over the area, so that the marks of the step before are gone. */
  passes: number;
  /** Depth of the marks it finds, takes off apart from texture, and leaves. */
  finds_m: number;
  clears_m: number;
  leaves_m: number;
}

/** What one pass of a step takes off, and the marks it leaves. */
function pass(step: RemovalStep): { own_m: number; uDepth_m: number; spread_m: number; leaves_m: number } {
  if ("polish" in step) {
    const [own_m, u_m] = POLISH_M[step.polish];
    return { own_m, uDepth_m: u_m, spread_m: 0, leaves_m: POLISH_LEAVES_M[step.polish] };
  }
  const { depth_m, u_m } = scratchDepth(step.grit, step.backing);
  const own = 1 + OVER_SANDING.share;
  return { own_m: own * depth_m, uDepth_m: own * u_m, spread_m: OVER_SANDING.sd * depth_m, leaves_m: depth_m };
}

/** What one pass more of a step takes off. */
export function onePass(step: RemovalStep): Removal {
  const { own_m, uDepth_m, spread_m } = pass(step);
  return { removal_m: own_m, u_m: Math.hypot(uDepth_m, spread_m) };
}

/**
 * Removal of a ladder in which every step goes on until the marks of the step before are gone: passes × (1.25 × its own scratch depth) is at
 * least the depth it finds. The first step is charged the texture as in {@link planRemoval}; with one pass a step it is that plan.
 * @param shop its own factor, where it has been taken over @throws RangeError for a negative texture or a factor out of range
 */
export function clearingPlan(
  steps: readonly RemovalStep[],
  texture?: Texture,
  shop: ShopRemoval | null = null,
): { steps: ClearedStep[]; total: Removal } {
  const once = planRemoval(steps, texture).steps;
  let finds_m = 0;
  const cleared = steps.map((use, i): ClearedStep => {
    const { own_m, uDepth_m, spread_m, leaves_m } = pass(use);
    const passes = Math.max(1, Math.ceil(finds_m / own_m - 1e-9));
    const more = passes - 1;
    const step: ClearedStep = {
      use,
      passes,
      finds_m,
      clears_m: passes * own_m,
      leaves_m,
      removal_m: once[i]!.removal_m + more * own_m,
      // The share of the grain that bites is one figure for all passes; how hard each was pressed is not.
      u_m:
        more === 0
          ? once[i]!.u_m
          : Math.hypot(Math.sqrt(Math.max(0, once[i]!.u_m ** 2 - uDepth_m ** 2)), passes * uDepth_m, Math.sqrt(more) * spread_m),
    };
    finds_m = leaves_m;
    return step;
  });
  const total = { removal_m: cleared.reduce((a, s) => a + s.removal_m, 0), u_m: Math.hypot(...cleared.map((s) => s.u_m)) };
  if (!shop) return { steps: cleared, total };
  const factor = requireNumber("shop.factor", shop.factor, { above: 0, max: 5 });
  const removal_m = factor * total.removal_m;
  // What was measured here takes the place of the defaults' doubt: the factor's own, and the spread from time to time.
  const u_m = Math.min(factor * total.u_m, Math.hypot(removal_m * requireNumber("shop.u_log", shop.u_log, { min: 0 }), REMOVAL_SPREAD_M));
  const narrower = total.u_m > 0 ? u_m / total.u_m : 1;
  return {
    steps: cleared.map((s) => ({ ...s, removal_m: factor * s.removal_m, u_m: narrower * s.u_m })),
    total: { removal_m, u_m },
  };
}

/** Steps that find deeper marks than they take off, or want too many passes: none in a sound ladder. */
export function skippedSteps(steps: readonly ClearedStep[]): number[] {
  return steps.flatMap((s, i) => (s.clears_m + 1e-15 < s.finds_m || s.passes > MOST_PASSES ? [i] : []));
}

/** Finer grits in their order, each with the backing that finishes with it. */
const FINER: readonly { grit: Grit; backing: Backing }[] = [
  { grit: "P800", backing: "medium" },
  { grit: "P1000", backing: "medium" },
  { grit: "P1200", backing: "medium" },
  { grit: "P1500", backing: "medium" },
  { grit: "P2000", backing: "medium" },
  { grit: "P3000", backing: "soft" },
];
const POLISHING: readonly RemovalStep[] = [{ polish: "compound" }, { polish: "polish" }];

/**
 * The shortest ladder from a grit to the polish in which no step has to clear more than it can: after each step the finest one that still
 * clears it within the passes allowed.
 */
export function finishLadder(start: { grit: Grit; backing: Backing }): RemovalStep[] {
  const ladder: RemovalStep[] = [start];
  const last = FINER.at(-1)!;
  let now: { grit: Grit; backing: Backing } = start;
  while (GRAIN_M[now.grit][0] > GRAIN_M[last.grit][0]) {
    const { leaves_m } = pass(now);
    const finer = FINER.filter((f) => GRAIN_M[f.grit][0] < GRAIN_M[now.grit][0]);
    const next = finer.findLast((f) => Math.ceil(leaves_m / pass(f).own_m - 1e-9) <= MOST_PASSES) ?? finer[0]!;
    ladder.push(next);
    now = next;
  }
  return [...ladder, ...POLISHING];
}
