import { requireNumber, requireNumbers } from "../../kernel/guard";

export interface IsotonicFit {
  fitted: number[];
  /** Members that were pooled with a neighbour because they stood against the order. */
  pooled: boolean[];
}

/**
 * Weighted least-squares fit that never rises: pool adjacent violators (Barlow, Bartholomew, Bremner & Brunk 1972).
 * @param values in the order of the abscissa @param weights one a value, above zero @throws RangeError
 * @example decreasingFit([5, 3, 4, 1]).fitted // [5, 3.5, 3.5, 1]
 */
export function decreasingFit(values: readonly number[], weights: readonly number[] = values.map(() => 1)): IsotonicFit {
  requireNumbers("values", values);
  if (weights.length !== values.length) throw new RangeError(`weights must have ${values.length} members, got ${weights.length}`);
  const blocks: { mean: number; weight: number; count: number }[] = [];
  values.forEach((v, i) => {
    blocks.push({ mean: v, weight: requireNumber(`weights[${i}]`, weights[i]!, { above: 0 }), count: 1 });
    while (blocks.length > 1 && blocks.at(-2)!.mean < blocks.at(-1)!.mean) {
      const b = blocks.pop()!;
      const a = blocks.pop()!;
      const weight = a.weight + b.weight;
      blocks.push({ mean: (a.mean * a.weight + b.mean * b.weight) / weight, weight, count: a.count + b.count });
    }
  });
  return {
    fitted: blocks.flatMap((b) => Array<number>(b.count).fill(b.mean)),
    pooled: blocks.flatMap((b) => Array<boolean>(b.count).fill(b.count > 1)),
  };
}
