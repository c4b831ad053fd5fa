import { pooledRepeatability } from "../film/gauge";
import { requireInteger, requireNumbers } from "../../kernel/guard";
import { STEP_SPREAD, learnRemoval } from "./learn-removal";
import type { Removal } from "./removal-plan";
import type { MarkRead } from "./removal-on-marks";

/** Film that came off at one mark, from readings before and after; the gauge's own error is common and drops out. May be negative. */
export function removalAtMark(before_m: readonly number[], after_m: readonly number[]): Removal {
  requireNumbers("before_m", before_m, 1, { min: 0 });
  requireNumbers("after_m", after_m, 1, { min: 0 });
  const mean = (list: readonly number[]) => list.reduce((a, b) => a + b, 0) / list.length;
  const { repeatability_m } = pooledRepeatability([before_m, after_m]);
  return { removal_m: mean(before_m) - mean(after_m), u_m: repeatability_m * Math.sqrt(1 / before_m.length + 1 / after_m.length) };
}

/** The same over several marks: their mean, of so many places. @throws RangeError for none */
export function removalAtMarks(marks: readonly { before_m: readonly number[]; after_m: readonly number[] }[]): MarkRead {
  const each = marks.map((m) => removalAtMark(m.before_m, m.after_m));
  const places = requireInteger("marks", each.length, { min: 1 });
  return {
    removal_m: each.reduce((a, m) => a + m.removal_m, 0) / places,
    u_m: Math.hypot(...each.map((m) => m.u_m)) / places,
    places,
  };
}

/**
 * What a step took off the panel, from its forecast and what one mark says: the two weighed by their doubts, the mark's with the spread from
 * place to place, less with several places. @throws RangeError
 */
export function weighMeasured(forecast: Removal, mark: MarkRead): Removal {
  if (forecast.u_m === 0) return forecast;
  const place_m = (STEP_SPREAD * forecast.removal_m) / Math.sqrt(mark.places ?? 1);
  const { mean_m, sd_m } = learnRemoval({ mean_m: forecast.removal_m, sd_m: forecast.u_m }, [mark], place_m);
  return { removal_m: mean_m, u_m: sd_m };
}
