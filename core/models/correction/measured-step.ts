import { pooledRepeatability } from "../film/gauge";
import { requireNumbers } from "../../kernel/guard";
import { STEP_SPREAD, learnRemoval } from "./learn-removal";
import type { Removal } from "./removal-plan";

/** Film that came off at one mark, from readings before and after; the gauge's own error is common and drops out. May be negative. */
export function removalAtMark(before_m: readonly number[], after_m: readonly number[]): Removal {
  requireNumbers("before_m", before_m, 1, { min: 0 });
  requireNumbers("after_m", after_m, 1, { min: 0 });
  const mean = (list: readonly number[]) => list.reduce((a, b) => a + b, 0) / list.length;
  const { repeatability_m } = pooledRepeatability([before_m, after_m]);
  return { removal_m: mean(before_m) - mean(after_m), u_m: repeatability_m * Math.sqrt(1 / before_m.length + 1 / after_m.length) };
}

/**
 * What a step took off the panel, from its forecast and what one mark says: the two weighed by their doubts, the mark's with the spread from
 * place to place. @throws RangeError
 */
export function weighMeasured(forecast: Removal, mark: Removal): Removal {
  if (forecast.u_m === 0) return forecast;
  const { mean_m, sd_m } = learnRemoval({ mean_m: forecast.removal_m, sd_m: forecast.u_m }, [mark], STEP_SPREAD * forecast.removal_m);
  return { removal_m: mean_m, u_m: sd_m };
}
