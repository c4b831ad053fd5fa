import { requireNumber } from "../../kernel/guard";
import { studentTQuantile } from "../../kernel/stats/student-t";

/** One line of an uncertainty budget; a limit known without statistics has infinite degrees of freedom. */
export interface BudgetLine {
  u: number;
  degreesOfFreedom: number;
}

/**
 * Combined and expanded uncertainty of independent components by the GUM (JCGM 100, 5.1.2 and G.4): root sum of squares, effective
 * degrees of freedom by Welch–Satterthwaite, coverage factor from Student t.
 * @throws RangeError for a negative component, one without degrees of freedom, or a coverage outside (0, 1)
 * @example combineBudget([{ u: 3, degreesOfFreedom: 6 }, { u: 4, degreesOfFreedom: Infinity }], 0.95).u // 5
 */
export function combineBudget(
  lines: readonly BudgetLine[],
  coverage = 0.95,
): { u: number; degreesOfFreedom: number; coverageFactor: number; expanded: number } {
  requireNumber("coverage", coverage, { above: 0, below: 1 });
  let sum4 = 0;
  lines.forEach(({ u, degreesOfFreedom: df }, i) => {
    requireNumber(`lines[${i}].u`, u, { min: 0 });
    if (!(df > 0)) throw new RangeError(`lines[${i}].degreesOfFreedom must be > 0, got ${df}`);
    sum4 += u ** 4 / df;
  });
  const u = Math.hypot(...lines.map((l) => l.u));
  // No finite component: the normal distribution, which Student t is to within 1e-9 here.
  const degreesOfFreedom = sum4 > 0 ? Math.min(u ** 4 / sum4, 1e9) : 1e9;
  const coverageFactor = studentTQuantile((1 + coverage) / 2, degreesOfFreedom);
  return { u, degreesOfFreedom, coverageFactor, expanded: coverageFactor * u };
}
