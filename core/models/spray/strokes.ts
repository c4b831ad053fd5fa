import type { Polygon } from "../../kernel/geometry/geometry";
import { requireNumber } from "../../kernel/guard";
import type { Trigger } from "./trigger";

/** How a hand goes over a part. Defaults of ours; common practice. */
export const USUAL_STROKES = {
  /** The gun runs so far past the edge at either end of a stroke. */
  overrun_m: 0.1,
  /** Turning round at the end of a stroke. */
  turn_s: 0.6,
} as const;

export interface Strokes {
  count: number;
  /** All strokes together, and how long the trigger is pulled and the coat takes. */
  length_m: number;
  trigger_s: number;
  time_s: number;
}

/** One stroke across a part, with its overrun: from x0 to x1 at one height, y downwards. Of a turned one x runs down the part and y across it. */
export interface Pass {
  x0_m: number;
  x1_m: number;
  y_m: number;
  turned?: boolean;
}

/** The place of the part so far along a pass. */
export const placeOnPass = ({ y_m, turned }: Pass, along_m: number): { x_m: number; y_m: number } =>
  turned ? { x_m: y_m, y_m: along_m } : { x_m: along_m, y_m };

export interface HandOver {
  handSpeed_m_s: number;
  trigger?: Trigger | undefined;
  turn_s?: number;
}

/** What the passes of one coat come to: their number, length and time. @throws RangeError */
export function strokesOf(
  passes: readonly Pass[],
  { handSpeed_m_s, trigger = "released", turn_s = USUAL_STROKES.turn_s }: HandOver,
): Strokes {
  const speed = requireNumber("handSpeed_m_s", handSpeed_m_s, { min: 0.02, max: 10 });
  requireNumber("turn_s", turn_s, { min: 0, max: 60 });
  const count = passes.length;
  const length_m = passes.reduce((sum, { x0_m, x1_m }) => sum + Math.abs(x1_m - x0_m), 0);
  const turns_s = count * turn_s;
  const moving_s = length_m / speed;
  return { count, length_m, trigger_s: moving_s + (trigger === "held" ? turns_s : 0), time_s: moving_s + turns_s };
}

/** Levels at which a band is looked at for where the part is: its edges and so many between. */
const LEVELS = 9;
/** Levels on a corner or an edge would be in and out at once: they are taken a little inside. */
const INSIDE = 1e-6;

/** Where the part lies within a band, from left to right; gaps that the gun would run through anyway are none. */
export function reachesWithin(outline: Polygon, low: number, high: number, gap_m: number): [number, number][] {
  const spans: [number, number][] = [];
  for (let k = 0; k < LEVELS; k++) {
    const level = low + (high - low) * (INSIDE + (1 - 2 * INSIDE) * (k / (LEVELS - 1)));
    const crossed: number[] = [];
    let [ax, ay] = outline.at(-1)!;
    for (const [bx, by] of outline) {
      if (ay < level !== by < level) crossed.push(ax + ((bx - ax) * (level - ay)) / (by - ay));
      ax = bx;
      ay = by;
    }
    crossed.sort((a, b) => a - b);
    for (let c = 0; c + 1 < crossed.length; c += 2) spans.push([crossed[c]!, crossed[c + 1]!]);
  }
  spans.sort((a, b) => a[0] - b[0]);
  const reaches: [number, number][] = [];
  for (const [from, to] of spans) {
    const last = reaches.at(-1);
    if (last && from - last[1] <= gap_m) last[1] = Math.max(last[1], to);
    else reaches.push([from, to]);
  }
  return reaches;
}

/**
 * Ready-to-spray material of one coat: strokes × (length + overrun) ÷ hand speed × fluid, and what the trigger lets go in the turns. Area × film
 * ÷ transfer is a check beside it and far too little for small parts, where most flies past. @throws RangeError
 */
export function coatVolume(strokes: Strokes, fluidRate_m3_s: number): number {
  return requireNumber("fluidRate_m3_s", fluidRate_m3_s, { min: 1e-9, max: 1e-3 }) * strokes.trigger_s;
}
