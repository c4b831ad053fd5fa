import { requireNumber } from "../kernel/guard";
import { type CureStage, CURE_STAGES, cureFromLog } from "../models/cure/bake-plan";
import type { PartSample } from "../models/cure/cure-age";
import type { ProductSheet } from "../models/product/sheet";
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

/** A part kept hot for a time, as it was logged by hand: it ends where it was written. */
export interface HandBake {
  end_ms: number;
  part_K: number;
  time_s: number;
}
/** A probe's samples, counted from the last coat. */
export interface ProbeLog {
  samples: readonly PartSample[];
}

/** Between two steps of a temperature log a part is taken to change within a second. */
const STEP_S = 1;

/** Temperature of the part since its last coat: the air that was logged, over it what was baked by hand, over it what a probe saw. */
export function partLog(o: {
  air: AirLog;
  lastCoat_ms: number;
  now_ms: number;
  bakes: readonly HandBake[];
  probe: ProbeLog | null;
}): PartSample[] {
  const end_s = Math.max(STEP_S, (o.now_ms - o.lastCoat_ms) / MS);
  const bakes = o.bakes.map((b) => {
    const to_s = (b.end_ms - o.lastCoat_ms) / MS;
    return { from_s: Math.max(0, to_s - b.time_s), to_s, part_K: b.part_K };
  });
  const probed_s = o.probe ? o.probe.samples.at(-1)!.at_s : 0;
  const at = (s: number) => bakes.findLast((b) => s >= b.from_s && s < b.to_s)?.part_K ?? airAt(o.air, o.lastCoat_ms + s * MS);
  const turns = [
    0,
    ...o.air.map((a) => (a.from_ms - o.lastCoat_ms) / MS),
    ...bakes.flatMap((b) => [b.from_s, b.to_s]),
    ...(o.probe ? [probed_s] : []),
  ]
    .filter((s) => s >= probed_s && s < end_s)
    .sort((a, b) => a - b);
  const samples: PartSample[] = o.probe ? [...o.probe.samples] : [];
  const add = (at_s: number, part_K: number) => {
    if (samples.length === 0 || at_s > samples.at(-1)!.at_s) samples.push({ at_s, part_K });
  };
  for (const s of new Set(turns)) {
    if (samples.length > 0 && s > samples.at(-1)!.at_s)
      add(s - Math.min(STEP_S, (s - samples.at(-1)!.at_s) / 2), at(Math.max(0, s - STEP_S)));
    add(s, at(s));
  }
  if (end_s > samples.at(-1)!.at_s) add(end_s, at(end_s));
  if (samples.length < 2) samples.push({ at_s: samples[0]!.at_s + STEP_S, part_K: samples[0]!.part_K });
  return samples;
}

export interface CureState {
  /** Age at 20 °C so far. */
  age_s: number;
  /** When each stage was or will be reached, if the part stays as it is now; null: the sheet does not say. */
  stages: { stage: CureStage; at_ms: number | null; reached: boolean }[];
  /** By what the temperature is known: surest part of it. */
  from: "probe" | "bake" | "climate" | "sheet";
  /** Highest temperature of the part so far. */
  top_K: number;
}

/**
 * The one cure of a panel: age since its last coat at the temperatures that were logged, and when it may be taped, sanded, polished and waxed.
 * Heat far beyond what the sheet speaks of counts no more than its limit. @throws RangeError
 */
export function cureState(
  sheet: ProductSheet,
  o: { air: AirLog; logged: boolean; lastCoat_ms: number; now_ms: number; bakes: readonly HandBake[]; probe: ProbeLog | null },
): CureState {
  const most_K = (sheet.bake?.part_K ?? UNLOGGED_AIR_K) + BEYOND_K;
  const log = partLog(o).map((s) => ({ ...s, part_K: Math.min(s.part_K, most_K) }));
  const { age_s, stages, top_K } = cureFromLog(sheet, log);
  return {
    age_s,
    top_K,
    stages: stages.map(({ stage, at_s }) => ({
      stage,
      at_ms: at_s === null ? null : o.lastCoat_ms + at_s * MS,
      reached: at_s !== null && o.lastCoat_ms + at_s * MS <= o.now_ms,
    })),
    from: o.probe ? "probe" : o.bakes.length > 0 ? "bake" : o.logged ? "climate" : "sheet",
  };
}
/** So far above the sheet's own bake heat still counts. */
const BEYOND_K = 10;

/** When one stage is reached; null: the sheet does not say. */
export const stageAt = (cure: CureState, stage: keyof typeof CURE_STAGES): number | null =>
  cure.stages.find((s) => s.stage === stage)?.at_ms ?? null;
