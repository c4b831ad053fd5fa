import { requireNumber } from "../../kernel/guard";

/**
 * A figure of a place by the film of it, as a share of the one planned, and by how long the coat below had waited: rows by wait, the shortest first, in
 * each row a figure for each share, the least first. A first coat has one row.
 */
export interface ByFilm {
  shares: readonly number[];
  waits_s: readonly number[];
  figures: readonly (readonly number[])[];
}

/** So finely a share of the film is told apart, up to so many times the one planned. */
const SHARES = { most: 3, steps: 96 } as const;

/** What lies before and after a figure in a list that rises, and how far between: beyond its ends the end itself. */
function between(list: readonly number[], at: number): { a: number; b: number; t: number } {
  const above = list.findIndex((x) => x >= at);
  if (above === 0) return { a: 0, b: 0, t: 0 };
  if (above < 0) return { a: list.length - 1, b: list.length - 1, t: 0 };
  return { a: above - 1, b: above, t: (at - list[above - 1]!) / (list[above]! - list[above - 1]!) };
}

/**
 * The figure of a place: linear in its share and in the logarithm of its wait, beyond the table as at its edge. Made once for as long as a table is
 * used: it tells shares apart by 1/32. @throws RangeError for a figure out of [0, 10]
 */
export function byFilm({ shares, waits_s, figures }: ByFilm): (share: number, wait_s: number) => number {
  for (const figure of figures.flat()) requireNumber("figure", figure, { min: 0, max: 10 });
  const rows = figures.map((row) =>
    Float32Array.from({ length: SHARES.steps + 1 }, (_, k) => {
      const { a, b, t } = between(shares, (SHARES.most * k) / SHARES.steps);
      return row[a]! + t * (row[b]! - row[a]!);
    }),
  );
  const logs = waits_s.map((wait_s) => Math.log(Math.max(1, wait_s)));
  return (share, wait_s) => {
    const k = Math.min(SHARES.steps, Math.max(0, Math.round((SHARES.steps * (share || 0)) / SHARES.most)));
    if (rows.length === 1) return rows[0]![k]!;
    const { a, b, t } = between(logs, Math.log(Math.max(1, wait_s)));
    return rows[a]![k]! + t * (rows[b]![k]! - rows[a]![k]!);
  };
}
