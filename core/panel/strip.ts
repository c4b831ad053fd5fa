import { DEFAULT_GAUGE, gaugeUncertainty } from "../models/film/gauge";
import { SAME_GAUGE_CORRELATION } from "../models/film/difference";
import type { EntryOf } from "../record/entry";
import type { FilmChange } from "./builds";

/** What lies on the part against what lies on a flat strip beside it: a default of ours, as a share of the clear. */
export const STRIP_SHARE = 0.12;

/** Clear of a part by a metal strip sprayed beside it, less what was taken off the part since; null while it was not read both before and after. */
export interface StripClear {
  clear_m: number;
  u_m: number;
  /** On the strip itself. */
  strip_m: number;
  simulated: boolean;
}

const meanOf = (list: readonly EntryOf<"strip">[]) => {
  const all = list.flatMap((s) => s.body.readings.map((r) => r.thickness_m));
  const mean = all.reduce((a, b) => a + b, 0) / all.length;
  return { mean, n: all.length };
};

export function stripClear(
  strips: readonly EntryOf<"strip">[],
  { changes, repeatability_m }: { changes: readonly FilmChange[]; repeatability_m: number },
): StripClear | null {
  const before = strips.filter((s) => s.body.phase === "before");
  const after = strips.filter((s) => s.body.phase === "after");
  if (before.length === 0 || after.length === 0) return null;
  const [low, high] = [meanOf(before), meanOf(after)];
  const strip_m = high.mean - low.mean;
  const [uLow, uHigh] = [low, high].map((m) => gaugeUncertainty(m.mean, DEFAULT_GAUGE)) as [number, number];
  // The gauge's own error is largely the same at both visits and goes out in the difference.
  const gauge2 = uLow ** 2 + uHigh ** 2 - 2 * SAME_GAUGE_CORRELATION * uLow * uHigh;
  const read_m = Math.sqrt(gauge2 + repeatability_m ** 2 * (1 / low.n + 1 / high.n));
  const since = changes.filter((c) => c.seq > after.at(-1)!.seq);
  return {
    strip_m,
    clear_m: strip_m + since.reduce((a, c) => a + c.change_m, 0),
    u_m: Math.hypot(read_m, STRIP_SHARE * strip_m, ...since.map((c) => c.u_m)),
    simulated: [...before, ...after].some((s) => s.simulated),
  };
}
