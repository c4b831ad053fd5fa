import { type Polygon, boundingBox, requirePolygon } from "../../kernel/geometry/geometry";
import { requireNumber } from "../../kernel/guard";
import { type GunSettings, fanOf } from "./deposit";
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

/** One stroke across a part, with its overrun: from x0 to x1 at one height, y downwards. */
export interface Pass {
  x0_m: number;
  x1_m: number;
  y_m: number;
}

export interface RowsOver {
  fan_m: number;
  /** Share of the fan covered again by the next row. */
  overlap: number;
  overrun_m?: number;
  /** Of the first row below the part's upper edge: on it unless staggered. */
  first_m?: number;
}

/**
 * One coat as strokes across a part: rows one index apart from the upper edge down, every other one back, each from an overrun before the part to one
 * behind it. A row is as long as the part is wide within the fan; over a wheel arch it is two. The same rows as the reference program on a rectangle.
 * @throws RangeError
 */
export function passesOver(outline: Polygon, { fan_m, overlap, overrun_m = USUAL_STROKES.overrun_m, first_m = 0 }: RowsOver): Pass[] {
  requirePolygon("outline", outline);
  const fan = requireNumber("fan_m", fan_m, { min: 0.01, max: 1 });
  const pitch_m = fan * (1 - requireNumber("overlap", overlap, { min: 0, max: 0.9 }));
  requireNumber("overrun_m", overrun_m, { min: 0, max: 2 });
  requireNumber("first_m", first_m, { min: -1, max: 1 });
  const { y0, y1 } = boundingBox(outline);
  const passes: Pass[] = [];
  for (let y_m = y0 + first_m, back = false; y_m <= y1 + 1e-9; y_m += pitch_m) {
    const reaches = reachesWithin(outline, Math.max(y0, y_m - fan / 2), Math.min(y1, y_m + fan / 2), 2 * overrun_m);
    const there = reaches.map(([from, to]) => ({ x0_m: from - overrun_m, x1_m: to + overrun_m, y_m }));
    passes.push(...(back ? there.reverse().map((p) => ({ ...p, x0_m: p.x1_m, x1_m: p.x0_m })) : there));
    if (there.length > 0) back = !back; // a row that misses the part is none
  }
  return passes;
}

/** What the passes of one coat come to: their number, length and time. @throws RangeError */
export function strokesOver(
  outline: Polygon,
  {
    handSpeed_m_s,
    trigger = "released",
    turn_s = USUAL_STROKES.turn_s,
    ...rows
  }: RowsOver & { handSpeed_m_s: number; trigger?: Trigger; turn_s?: number },
): Strokes {
  const speed = requireNumber("handSpeed_m_s", handSpeed_m_s, { min: 0.02, max: 10 });
  requireNumber("turn_s", turn_s, { min: 0, max: 60 });
  const passes = passesOver(outline, rows);
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
function reachesWithin(outline: Polygon, low: number, high: number, gap_m: number): [number, number][] {
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

export interface CoatVolume {
  /** Ready-to-spray material through the gun, and how long the passes take. */
  volume_m3: number;
  time_s: number;
  strokes: number;
}

/** Material and time of one coat over a whole part with this gun: its strokes by its own fan. @throws RangeError */
export function coatOver(outline: Polygon, gun: GunSettings, trigger: Trigger = "released"): CoatVolume {
  const strokes = strokesOver(outline, { fan_m: fanOf(gun), overlap: gun.overlap, handSpeed_m_s: gun.handSpeed_m_s, trigger });
  return { volume_m3: coatVolume(strokes, gun.fluidRate_m3_s), time_s: strokes.time_s, strokes: strokes.count };
}
