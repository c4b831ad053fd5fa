import { requireNumber } from "../kernel/guard";
import { UNLOGGED_AIR_K } from "../models/trade-limits";

/** What a part lay in from a moment on, until the next. */
export interface AirSpan {
  from_ms: number;
  air_K: number;
}
/** Oldest first; the first holds for everything before it too. */
export type AirLog = readonly AirSpan[];
/** Where nobody logged a climate: 20 °C. */
export const UNLOGGED_AIR: AirLog = [{ from_ms: -Infinity, air_K: UNLOGGED_AIR_K }];

/** The log of what was told; of two things told for one moment the later one counts. */
export function airLog(told: readonly AirSpan[]): AirLog {
  if (told.length === 0) return UNLOGGED_AIR;
  const sorted = [...told].sort((a, b) => a.from_ms - b.from_ms);
  return sorted.map((s, i) => (i === 0 ? { ...s, from_ms: -Infinity } : s));
}

/** @throws RangeError */
export function airAt(log: AirLog, at_ms: number): number {
  requireNumber("at_ms", at_ms);
  return (log.findLast((s) => s.from_ms <= at_ms) ?? log[0]!).air_K;
}

const MS = 1000;

/**
 * Seconds from a moment on after which something is through that takes so long at each temperature: each span of the log does its share, the last
 * one goes on as it is. @throws RangeError for a duration that is not above zero
 */
export function throughFrom(log: AirLog, from_ms: number): (durationAt_s: (air_K: number) => number) => number {
  return (durationAt_s) => {
    let left = 1;
    let at_ms = from_ms;
    for (;;) {
      const next = log.find((s) => s.from_ms > at_ms);
      const whole_s = requireNumber("duration_s", durationAt_s(airAt(log, at_ms)), { above: 0 });
      const span_s = next ? (next.from_ms - at_ms) / MS : Infinity;
      if (left * whole_s <= span_s) return (at_ms - from_ms) / MS + left * whole_s;
      left -= span_s / whole_s;
      at_ms = next!.from_ms;
    }
  };
}
