import { BACKING, type Backing, GRAIN_M, type Grit, POLISH_M, scratchDepth } from "./abrasives";
import { requireNumber } from "../../kernel/guard";
import { REMOVAL_SPREAD_M, STEP_SPREAD } from "./learn-removal";
import { NO_MARKS, type MarkConditions, conditionedOnMarks } from "./removal-on-marks";
import {
  OVER_SANDING,
  type Removal,
  type RemovalStep,
  SANDING_TOOLS,
  type SandingTool,
  type Texture,
  planRemoval,
  scaled,
  sumOf,
} from "./removal-plan";

/** What a shop takes off, as learnt from its own measured pairs and taken over. */
export interface ShopRemoval {
  /** Whole plans against their forecast; null: as forecast. */
  whole: {
    factor: number;
    /** Standard uncertainty of ln(factor). */
    u_log: number;
    /** Nobody has measured a removal here yet: factor and doubt are a guard on top of the defaults' own doubt, not in its place. */
    unmeasured?: boolean;
  } | null;
  /** One pass of single steps by their {@link abrasiveKey}; they are no longer multiplied by `whole`. */
  steps: Readonly<Record<string, Removal>>;
  /** What marks read on the panel at hand have told of the unknowns that steps share; left away: nothing. */
  told?: MarkConditions;
}
/** The defaults as they stand. */
export const DEFAULT_REMOVAL: ShopRemoval = { whole: null, steps: {} };
/** A shop that has not measured what it takes off: simulation against truths the model does not share asks for this much more (docs/validation.md). */
export const UNMEASURED_REMOVAL: ShopRemoval = { whole: { factor: 1.1, u_log: 0.12, unmeasured: true }, steps: {} };

/** Under what a step's removal is learnt: grit × backing × tool, or the polish. */
export const abrasiveKey = (use: RemovalStep): string =>
  "polish" in use ? use.polish : `${use.grit} ${use.backing} ${use.tool ?? "machine"}`;

/** Marks that a polish itself leaves. Defaults of ours. */
export const POLISH_LEAVES_M = { compound: 0.15e-6, polish: 0.05e-6, ultrafine: 0.02e-6 } as const;
/** A step that wants more passes than this skips too far: a grit belongs between. Default of ours. */
export const MOST_PASSES = 3;

export interface ClearedStep extends Removal {
  use: RemovalStep;
  /** Times over the area, so that the marks of the step before are gone. */
  passes: number;
  /** Its share of the texture, within `removal_m`. */
  texture_m: number;
  /** What the defaults say for it, before anything this shop has learnt. */
  default_m: number;
  /** Its removal is this shop's own, measured step by step. */
  own: boolean;
  /** Depth of the marks it finds, takes off apart from texture, and leaves. */
  finds_m: number;
  clears_m: number;
  leaves_m: number;
}

interface Pass {
  own_m: number;
  uDepth_m: number;
  /** The part of `uDepth_m` that is the backing's, and its name. */
  common_m: Readonly<Record<string, number>>;
  spread_m: number;
  leaves_m: number;
}

/** What one pass of a step takes off, and the marks it leaves: by the shop's own figure where there is one. */
function pass(step: RemovalStep, { steps }: Pick<ShopRemoval, "steps"> = DEFAULT_REMOVAL): Pass {
  const own = steps[abrasiveKey(step)];
  const usual = defaultPass(step);
  if (!own) return usual;
  const own_m = requireNumber(`steps["${abrasiveKey(step)}"].removal_m`, own.removal_m, { above: 0, max: 1e-4 });
  return { ...usual, own_m, uDepth_m: own.u_m, common_m: {}, spread_m: STEP_SPREAD * own_m };
}

function defaultPass(step: RemovalStep): Pass {
  if ("polish" in step) {
    const [own_m, u_m] = POLISH_M[step.polish];
    return { own_m, uDepth_m: u_m, common_m: {}, spread_m: 0, leaves_m: POLISH_LEAVES_M[step.polish] };
  }
  const { depth_m, u_m, uBacking_m } = scratchDepth(step.grit, step.backing);
  const own = 1 + OVER_SANDING.share;
  return {
    own_m: own * depth_m,
    uDepth_m: own * u_m,
    common_m: { [step.backing]: own * uBacking_m },
    spread_m: OVER_SANDING.sd * depth_m,
    leaves_m: depth_m,
  };
}

/** What one pass more of a step takes off. */
export function onePass(step: RemovalStep, shop: ShopRemoval = DEFAULT_REMOVAL): Removal {
  const { own_m, uDepth_m, spread_m, common_m } = pass(step, shop);
  const once = { removal_m: own_m, u_m: Math.hypot(uDepth_m, spread_m), common_m };
  return conditionedOnMarks(abrasiveKey(step) in shop.steps || !shop.whole ? once : byShop(once, shop.whole), shop.told ?? NO_MARKS);
}

/** A removal by the defaults, as this shop's factor has it. */
function byShop(usual: Removal, { factor, u_log, unmeasured }: NonNullable<ShopRemoval["whole"]>): Removal {
  const more = scaled(usual, factor);
  if (!unmeasured) return more;
  const guard_m = u_log * more.removal_m;
  return { ...more, u_m: Math.hypot(more.u_m, guard_m), common_m: { ...more.common_m, unmeasured: guard_m } };
}

/** Doubt of a removal whose factor was measured here: the factor's own and the spread from time to time, never more than the usual. */
const measuredDoubt = (removal_m: number, { usual_m, u_log }: { usual_m: number; u_log: number }): number =>
  Math.min(usual_m, Math.hypot(removal_m * u_log, REMOVAL_SPREAD_M));

/**
 * Removal of a ladder in which every step goes on until the marks of the step before are gone: passes × (1.25 × its own scratch depth) is at
 * least the depth it finds. The first step is charged the texture as in {@link planRemoval}; with one pass a step it is that plan.
 * @param shop its own removal, where it has been taken over
 * @throws RangeError for a negative texture or a figure out of range
 */
export function clearingPlan(
  steps: readonly RemovalStep[],
  texture?: Texture,
  shop: ShopRemoval = DEFAULT_REMOVAL,
): { steps: ClearedStep[]; total: Removal } {
  const once = planRemoval(steps, texture).steps;
  let finds_m = 0;
  const { whole, told = NO_MARKS } = shop;
  if (whole) {
    requireNumber("shop.factor", whole.factor, { above: 0, max: 5 });
    requireNumber("shop.u_log", whole.u_log, { min: 0 });
  }
  const cleared = steps.map((use, i): ClearedStep => {
    const usual = defaultPass(use);
    const { own_m, uDepth_m, spread_m, leaves_m, common_m } = pass(use, shop);
    const own = abrasiveKey(use) in shop.steps;
    const passes = Math.max(1, Math.ceil(finds_m / own_m - 1e-9));
    const texture_m = Math.max(0, once[i]!.removal_m - usual.own_m);
    const uTexture_m = Math.sqrt(Math.max(0, once[i]!.u_m ** 2 - usual.uDepth_m ** 2 - usual.spread_m ** 2));
    const step: ClearedStep = {
      use,
      passes,
      finds_m,
      clears_m: passes * own_m,
      leaves_m,
      texture_m,
      default_m: texture_m + Math.max(1, Math.ceil(finds_m / usual.own_m - 1e-9)) * usual.own_m,
      own,
      ...(passes === 1 && !own
        ? once[i]!
        : {
            removal_m: texture_m + passes * own_m,
            // The share of the grain that bites is one figure for all passes; how hard each was pressed is not.
            u_m: Math.hypot(uTexture_m, passes * uDepth_m, Math.sqrt(passes) * spread_m),
            common_m: scaled({ removal_m: 0, u_m: 0, common_m }, passes).common_m,
          }),
    };
    finds_m = leaves_m;
    return step;
  });
  const asItIsHere = byWhole(cleared, whole).map((s) => conditionedOnMarks(s, told));
  return { steps: asItIsHere, total: sumOf(asItIsHere) };
}

/** Steps by the defaults as this shop's whole factor has them; its own steps stay. */
function byWhole(cleared: readonly ClearedStep[], whole: ShopRemoval["whole"]): readonly ClearedStep[] {
  const usual = sumOf(cleared.filter((s) => !s.own));
  if (!whole || usual.removal_m === 0) return cleared;
  const removal_m = whole.factor * usual.removal_m;
  // What was measured here takes the place of the defaults' doubt: the factor's own, and the spread from time to time.
  const measured_m = measuredDoubt(removal_m, { usual_m: whole.factor * usual.u_m, u_log: whole.u_log });
  const narrower = whole.unmeasured || !(usual.u_m > 0) ? 1 : measured_m / (whole.factor * usual.u_m);
  return cleared.map((s): ClearedStep => {
    if (s.own) return s;
    const more = byShop(s, whole);
    return { ...s, ...more, ...scaled({ ...more, removal_m: 0 }, narrower), removal_m: more.removal_m };
  });
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

/** The default of one pass by its key, for learning. @throws RangeError for a key that is no step's */
export function stepPrior(key: string): { mean_m: number; sd_m: number } {
  const use = useOf(key);
  if (!use) throw new RangeError(`key must name grit, backing and tool, or a polish, got ${key}`);
  const { removal_m, u_m } = onePass(use);
  return { mean_m: removal_m, sd_m: u_m };
}

function useOf(key: string): RemovalStep | null {
  if (Object.hasOwn(POLISH_M, key)) return { polish: key as keyof typeof POLISH_M };
  const [grit, backing, tool] = key.split(" ");
  if (!(grit! in GRAIN_M) || !(backing! in BACKING) || !SANDING_TOOLS.includes(tool as SandingTool)) return null;
  return { grit: grit as Grit, backing: backing as Backing, tool: tool as SandingTool };
}

/** Depth of the marks a step leaves. */
export const marksLeft = (step: RemovalStep): number => pass(step).leaves_m;

/** Whether one step clears marks of a depth within the passes allowed. */
export const clearsWithin = (step: RemovalStep, finds_m: number, shop: ShopRemoval = DEFAULT_REMOVAL): boolean =>
  Math.ceil(finds_m / pass(step, shop).own_m - 1e-9) <= MOST_PASSES;
