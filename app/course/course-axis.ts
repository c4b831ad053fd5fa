import { timeTicks } from "d3-time";
import { type CourseStep, STEP_KINDS } from "#core/course/steps";
import { scaleLinear } from "~/kit/ui/linear-scale";

/** How a stretch of a step's time looks; a moment has no length: nobody knows how long it takes, or it is too short to be drawn. */
export type StretchKind = "tooSoon" | "window" | "rest" | "late" | "wait" | "work" | "moment" | "open";
export interface Stretch {
  kind: StretchKind;
  /** In per cent of the axis. */
  left: number;
  width: number;
}
export interface CourseAxis {
  from_ms: number;
  to_ms: number;
  now: number;
  ticks: { at_ms: number; left: number }[];
  place(at_ms: number): number;
}

const HOUR_MS = 3600_000;
/** Lengths an axis may have: it is as long as the window at hand and what follows it need. */
const SPANS_H = [1, 2, 4, 8, 12, 24, 48, 96] as const;
/** Share of it that has gone by, and steps to come that it shows at least. */
const BEFORE = 0.12;
const STEPS_SHOWN = 4;
/** Of a window at hand this share at least is seen. */
const WINDOW_SHARE = 1 / 6;
const TICKS = 5;
/** What is shorter than this, in per cent, is drawn as a moment. */
const SHORTEST = 0.8;

/** When a step begins: a wait with what it follows, work when it may. */
export const beginsAt = (s: CourseStep): number | null =>
  s.from_ms === null ? null : STEP_KINDS[s.kind] === "wait" ? s.from_ms - (s.duration_s ?? 0) * 1000 : s.from_ms;

/** One axis for the steps from now on: wide enough for the next few steps, never so wide that the window at hand is lost in it. */
export function courseAxis(steps: readonly CourseStep[], now_ms: number, action: CourseStep | null = null): CourseAxis {
  const times = steps
    .flatMap((s) => [s.from_ms, s.kind === "coat" ? s.best_ms : null])
    .filter((t): t is number => t !== null && t > now_ms)
    .sort((a, b) => a - b);
  const wanted_ms = (times[Math.min(STEPS_SHOWN, times.length - 1)] ?? now_ms) - now_ms;
  // The window at hand: of what is waited for, else of the next coat that has one.
  const coat = steps.find((s) => s.kind === "coat" && s.best_ms !== null && s.best_ms > now_ms);
  const end_ms = coat?.best_ms ?? action?.from_ms ?? null;
  const most_ms = end_ms !== null && end_ms > now_ms ? (end_ms - now_ms) / WINDOW_SHARE : Infinity;
  const wide = SPANS_H.find((h) => h * HOUR_MS * (1 - 2 * BEFORE) >= wanted_ms) ?? SPANS_H.at(-1)!;
  const hours = SPANS_H.findLast((h) => h <= wide && h * HOUR_MS <= most_ms) ?? SPANS_H[0];
  const from_ms = now_ms - BEFORE * hours * HOUR_MS;
  const to_ms = from_ms + hours * HOUR_MS;
  const place = scaleLinear([from_ms, to_ms], [0, 100], true);
  return {
    from_ms,
    to_ms,
    now: place(now_ms),
    ticks: timeTicks(new Date(from_ms), new Date(to_ms), TICKS).map((t) => ({ at_ms: t.getTime(), left: place(t.getTime()) })),
    place,
  };
}

/** Whether a step is told beyond the end of the axis. */
export const isBeyond = (s: CourseStep, axis: CourseAxis): boolean => (beginsAt(s) ?? -Infinity) >= axis.to_ms;

/**
 * A step's stretches: too soon, its window, what of it is still good, too late; a wait; work, and from when on it may be done. Each is as long as the
 * time it stands for.
 */
export function stretchesOf(step: CourseStep, axis: CourseAxis, now_ms: number): Stretch[] {
  const stretch = (kind: StretchKind, from_ms: number, to_ms: number): Stretch[] => {
    const [left, right] = [axis.place(from_ms), axis.place(to_ms)];
    return right <= left ? [] : [{ kind, left, width: right - left }];
  };
  const { from_ms, best_ms, latest_ms, late } = step;
  const took_ms = (step.duration_s ?? 0) * 1000;
  const work = (begins_ms: number): Stretch[] => {
    const [left, right] = [axis.place(begins_ms), axis.place(begins_ms + took_ms)];
    return right - left < SHORTEST ? [{ kind: "moment", left, width: 0 }] : stretch("work", begins_ms, begins_ms + took_ms);
  };
  if (from_ms === null) return step.state === "now" ? work(now_ms) : [];
  if (STEP_KINDS[step.kind] === "wait") return stretch("wait", from_ms - took_ms, from_ms);
  if (step.kind === "coat" && best_ms !== null)
    return [
      ...stretch("tooSoon", now_ms, from_ms),
      ...stretch("window", from_ms, best_ms),
      ...(latest_ms !== null && late === "grip" ? stretch("late", latest_ms, axis.to_ms) : []),
      ...(latest_ms !== null && late === "scuff"
        ? [...stretch("rest", best_ms, latest_ms), ...stretch("late", latest_ms, axis.to_ms)]
        : []),
    ];
  return [...(step.kind === "coat" || step.layer ? [] : stretch("open", from_ms + took_ms, axis.to_ms)), ...work(from_ms)];
}
