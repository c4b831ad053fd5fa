import { type Polygon, boundingBox } from "../kernel/geometry/geometry";
import { lyingOf } from "../models/spray/row-plan";
import { USUAL_STROKES } from "../models/spray/strokes";
import type { BenchCoat } from "./bench-setting";
import { type CoatOfHand, type HandMoment, axesOf } from "./hand";
import { type RowMade, rowsMade } from "./rows-made";

/** What a hand is good at, or not yet. */
export const SKILLS = ["overlap", "pace", "distance", "trigger", "edges", "wait", "gun"] as const;
export type Skill = (typeof SKILLS)[number];
/** What the hand does over the part. */
type HandSkill = Exclude<Skill, "wait" | "gun">;
/** With what is judged and worked on once the panel is hard. */
export const ALL_SKILLS = [...SKILLS, "judgement"] as const;
export type AnySkill = (typeof ALL_SKILLS)[number];

/**
 * The same coat with one thing done as it was wanted, and all else as the hand did it: what that thing cost is the difference of the two films.
 * @throws RangeError
 */
export function mended(skill: HandSkill, outline: Polygon, coat: CoatOfHand, wanted: BenchCoat): CoatOfHand {
  const rows = rowsMade(outline, coat, wanted.fan_m);
  if (rows.length === 0) return coat;
  const hand = MENDS[skill]({ outline, coat, wanted, rows });
  return { ...coat, hand };
}

/** A trigger that misses no edge is pulled so far past it at the least; a hand slower than this share of its row's speed stands. Defaults of ours. */
const PAST_M = 0.04;
const STANDS = 0.3;
/** A row that lies no farther in than this lies at the edge. */
const SEEN_M = 0.02;

interface Mend {
  outline: Polygon;
  coat: CoatOfHand;
  wanted: BenchCoat;
  rows: readonly RowMade[];
}

const MENDS: Record<HandSkill, (o: Mend) => HandMoment[]> = {
  /** Every row at the speed that is wanted, over the same places. */
  pace: ({ coat, wanted, rows }) => {
    const out: HandMoment[] = [];
    let t_s = 0;
    coat.hand.forEach((m, k) => {
      const before = coat.hand[k - 1];
      if (before) {
        const inRow = rows.some((r) => k > r.first && k <= r.last);
        const went_m = Math.hypot(m.x_m - before.x_m, m.y_m - before.y_m);
        t_s += inRow ? went_m / wanted.gun.handSpeed_m_s : m.t_s - before.t_s;
      }
      out.push({ ...m, t_s });
    });
    return out;
  },
  distance: ({ coat, wanted }) => coat.hand.map((m) => ({ ...m, distance_m: wanted.gun.distance_m })),
  /** Pulled from so far before the part to so far behind it, and never while the hand turns; a row that ended too soon goes on past the edge. */
  trigger: ({ outline, coat, rows }) => {
    const { x0: low, x1: high } = boundingBox(lyingOf(outline, coat.turned));
    const { along } = axesOf(coat.turned);
    const to = (m: HandMoment, at: number): HandMoment => ({ ...m, ...(coat.turned ? { y_m: at } : { x_m: at }) });
    const out: HandMoment[] = [];
    /** All later moments are so much later than they were. */
    let later_s = 0;
    for (const { first, last, way, speed_m_s } of rows) {
      const speed = Math.max(0.05, speed_m_s);
      const [enter, leave] = way === 1 ? [low - PAST_M, high + PAST_M] : [high + PAST_M, low - PAST_M];
      const leg = coat.hand.slice(first, last + 1);
      const missing_m = (along(leg[0]!) - enter) * way;
      if (missing_m > 0) {
        out.push({ ...to(leg[0]!, enter), t_s: leg[0]!.t_s + later_s, pulled: true });
        later_s += missing_m / speed;
      }
      leg.forEach((m, k) => {
        const next = leg[k + 1];
        const goes = next !== undefined && Math.abs(along(next) - along(m)) > STANDS * speed * (next.t_s - m.t_s);
        const onPart = along(m) >= low && along(m) <= high;
        const near = along(m) > low - USUAL_STROKES.overrun_m && along(m) < high + USUAL_STROKES.overrun_m;
        out.push({ ...m, t_s: m.t_s + later_s, pulled: next !== undefined && near && (goes || onPart) });
      });
      const ended = out.at(-1)!;
      const short_m = (leave - along(ended)) * way;
      if (short_m > 0) {
        out[out.length - 1] = { ...ended, pulled: true };
        later_s += short_m / speed;
        out.push({ ...to(ended, leave), t_s: ended.t_s + short_m / speed, pulled: false });
      }
    }
    return inOrder(out);
  },
  /** Rows as many and as far apart as the overlap wants, between the first and the last that were made; each sprayed as the one nearest to it was. */
  overlap: ({ coat, wanted, rows }) => {
    const places = rows.map((r) => r.across_m);
    return laidAt(coat, rows, between(Math.min(...places), Math.max(...places), wanted));
  },
  /** The first row along one edge and the last along the other: rows are added or moved there. */
  edges: ({ outline, coat, wanted, rows }) => {
    const { y0: low, y1: high } = boundingBox(lyingOf(outline, coat.turned));
    const pitch_m = wanted.fan_m * (1 - wanted.gun.overlap);
    const places = rows.map((r) => r.across_m);
    const first = Math.min(...places);
    const last = Math.max(...places);
    const insets = [first - low, high - last].filter((m) => m > SEEN_M);
    const spacing_m = (last - first) / Math.max(1, rows.length - 1);
    const even =
      rows.length > 1 && rows.every((r, k) => k === 0 || Math.abs(Math.abs(r.across_m - places[k - 1]!) - spacing_m) < 0.25 * spacing_m);
    // A row more beside one that lies near the edge would only pile up: even rows are laid anew as far apart as they were.
    if (even && insets.some((m) => m < 0.75 * pitch_m)) {
      const gaps = Math.max(1, Math.round((high - low) / spacing_m));
      return laidAt(
        coat,
        rows,
        Array.from({ length: gaps + 1 }, (_, k) => low + ((high - low) * k) / gaps),
      );
    }
    const before = first - low > SEEN_M ? [low, ...between(low, first, wanted).slice(1, -1)] : [];
    const after = high - last > SEEN_M ? [...between(last, high, wanted).slice(1, -1), high] : [];
    const kept = places.filter((p) => p > low - 0.5 * pitch_m && p < high + 0.5 * pitch_m);
    return laidAt(coat, rows, [...before, ...kept, ...after]);
  },
};

/** No moment before the one before it, also where sums of times were rounded. */
const inOrder = (hand: readonly HandMoment[]): HandMoment[] => {
  let before_s = 0;
  return hand.map((m) => ({ ...m, t_s: (before_s = Math.max(before_s, m.t_s)) }));
};

/** Places from one to another, none farther apart than the overlap wants. */
function between(from: number, to: number, { fan_m, gun }: BenchCoat): number[] {
  const gaps = Math.max(1, Math.ceil((to - from) / (fan_m * (1 - gun.overlap)) - 0.15));
  return Array.from({ length: gaps + 1 }, (_, k) => from + ((to - from) * k) / gaps);
}

/** Rows at these places across, each as the one that lay nearest was made, one after the other. */
function laidAt(coat: CoatOfHand, rows: readonly RowMade[], places: readonly number[]): HandMoment[] {
  const out: HandMoment[] = [];
  let t_s = 0;
  for (const place of places) {
    const near = rows.reduce((best, r) => (Math.abs(r.across_m - place) < Math.abs(best.across_m - place) ? r : best), rows[0]!);
    const leg = coat.hand.slice(near.first, near.last + 1);
    const shift = place - near.across_m;
    const from_s = leg[0]!.t_s;
    for (const m of leg) out.push({ ...m, ...(coat.turned ? { x_m: m.x_m + shift } : { y_m: m.y_m + shift }), t_s: t_s + m.t_s - from_s });
    const ended = out.at(-1)!;
    const after = coat.hand[near.last + 1];
    const turn_s = Math.min(5, after ? Math.max(0, after.t_s - leg.at(-1)!.t_s) : 0) || USUAL_STROKES.turn_s;
    t_s = ended.t_s + turn_s;
  }
  return out;
}
