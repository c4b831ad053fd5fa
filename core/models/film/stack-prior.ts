import { requireNumber } from "../../kernel/guard";
import { normalPdf } from "../../kernel/stats/normal";

/** Usual films, mean and standard deviation. Defaults of ours; a shop may know better. */
export const STACKS = {
  factory: { ecoat: [20e-6, 2e-6], primer: [35e-6, 3e-6], base: [15e-6, 2e-6], clear: [45e-6, 4e-6] },
  refinish: { ecoat: [20e-6, 2e-6], primer: [60e-6, 20e-6], base: [25e-6, 8e-6], clear: [60e-6, 12e-6] },
} as const;
export type StackName = keyof typeof STACKS;
export type StackWeights = Record<StackName, number>;
/** Belief before any reading when nobody knows the panel's history. */
export const UNKNOWN_HISTORY: StackWeights = { factory: 0.8, refinish: 0.2 };

/** Layers that the job itself has logged, mean and standard uncertainty: they replace or join those of the stack. */
export interface KnownUnder {
  base?: readonly [number, number] | undefined;
  /** Sealer and ground coats, on top of the stack's own layers. */
  added?: readonly (readonly [number, number])[] | undefined;
}

export function stackPrior(
  name: StackName,
  known: KnownUnder = {},
): { under_m: number; uUnder_m: number; clear_m: number; uClear_m: number } {
  const { ecoat, primer, base, clear } = STACKS[name];
  const under = [ecoat, primer, known.base ?? base, ...(known.added ?? [])];
  return {
    under_m: under.reduce((a, l) => a + l[0], 0),
    uUnder_m: Math.hypot(...under.map((l) => l[1])),
    clear_m: clear[0],
    uClear_m: clear[1],
  };
}

interface Inferred {
  clear_m: number;
  u_m: number;
  /** How unusual the total is for this stack, in standard deviations. */
  z: number;
}

/** Clear inferred from a total film when there is no reading before clear: conditions the stack on its sum. @throws RangeError */
export function clearFromTotal(total_m: number, uTotal_m: number, name: StackName, known: KnownUnder = {}): Inferred {
  requireNumber("total_m", total_m, { min: 0 });
  requireNumber("uTotal_m", uTotal_m, { min: 0 });
  const { under_m, uUnder_m, clear_m, uClear_m } = stackPrior(name, known);
  const variance = uUnder_m ** 2 + uClear_m ** 2 + uTotal_m ** 2;
  const gain = uClear_m ** 2 / variance;
  const excess = total_m - under_m - clear_m;
  return { clear_m: clear_m + gain * excess, u_m: uClear_m * Math.sqrt(1 - gain), z: excess / Math.sqrt(variance) };
}

/**
 * The same over several possible histories, weighted by how well each explains the total.
 * Always to be shown as "inferred, not measured".
 * @throws RangeError when no history is possible. @example clearFromMixture(120e-6, 2.5e-6).clear_m // 47.08e-6
 */
export function clearFromMixture(
  total_m: number,
  uTotal_m: number,
  belief: StackWeights = UNKNOWN_HISTORY,
  known: KnownUnder = {},
): { clear_m: number; u_m: number; weights: StackWeights; byStack: Record<StackName, Inferred> } {
  const names = Object.keys(STACKS) as StackName[];
  const byStack = Object.fromEntries(names.map((n) => [n, clearFromTotal(total_m, uTotal_m, n, known)])) as Record<StackName, Inferred>;
  const likelihood = names.map((n) => {
    const { uUnder_m, uClear_m } = stackPrior(n, known);
    return (
      (requireNumber(`belief.${n}`, belief[n], { min: 0, max: 1 }) * normalPdf(byStack[n].z)) / Math.hypot(uUnder_m, uClear_m, uTotal_m)
    );
  });
  let sum = likelihood.reduce((a, b) => a + b, 0);
  const posterior = sum > 0 ? likelihood : names.map((n) => belief[n]); // far outside every stack: nothing learnt about the history
  sum = posterior.reduce((a, b) => a + b, 0);
  if (!(sum > 0)) throw new RangeError("belief must give some history a weight above 0");
  const weights = Object.fromEntries(names.map((n, i) => [n, posterior[i]! / sum])) as StackWeights;
  const clear_m = names.reduce((a, n) => a + weights[n] * byStack[n].clear_m, 0);
  const variance = names.reduce((a, n) => a + weights[n] * (byStack[n].u_m ** 2 + (byStack[n].clear_m - clear_m) ** 2), 0);
  return { clear_m, u_m: Math.sqrt(variance), weights, byStack };
}
