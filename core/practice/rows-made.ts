import { type Polygon, boundingBox } from "../kernel/geometry/geometry";
import { lyingOf } from "../models/spray/row-plan";
import { reachAt } from "../models/spray/reach-at";
import { inRange } from "../kernel/guard";
import { type CoatOfHand, type HandMoment, axesOf } from "./hand";

/** One row as a hand made it. Along: from left to right, of a turned fan from above down; across: the other way. */
export interface RowMade {
  /** First and last moment of it in the coat. */
  first: number;
  last: number;
  /** The way it went: 1 along, −1 back. */
  way: 1 | -1;
  /** Where it lay across, in the mean over the part. */
  across_m: number;
  /** How far it drifted across from its start to its end. */
  drift_m: number;
  /** Over the part with the trigger pulled: mean speed, the slowest over a fifth of a second and when, mean distance and its least and most. */
  speed_m_s: number;
  slowest: { speed_m_s: number; t_s: number };
  distance_m: number;
  distances_m: readonly [number, number];
  /** The trigger was pulled so far before the part, and let go so far behind it; below zero: on it. */
  pulledBefore_m: number;
  letGoAfter_m: number;
  /** It stayed pulled for so long while the hand stood beside the part. */
  stoodOutside_s: number;
  /** Share of a fan over the nearest row above it; null for the first. */
  overlap: number | null;
}

/** A hand that goes back by less than this has not turned round. */
const TURNS_M = 0.06;
/** A row is at least so long. */
const SHORTEST_M = 0.1;
/** So long a time of the hand is one look at its speed. */
const LOOK_S = 0.2;

interface Leg {
  first: number;
  last: number;
}

/** Where the hand turned round: legs between turning points along the rows. */
function legsOf(along: readonly number[]): Leg[] {
  const legs: Leg[] = [];
  let from = 0;
  let far = 0;
  let way = 0;
  for (let k = 1; k < along.length; k++) {
    const ahead = way === 0 ? Math.abs(along[k]! - along[from]!) : (along[k]! - along[far]!) * way;
    if (way === 0) {
      if (ahead >= TURNS_M) {
        way = Math.sign(along[k]! - along[from]!);
        far = k;
      }
    } else if (ahead >= 0) far = k;
    else if (-ahead >= TURNS_M) {
      legs.push({ first: from, last: far });
      from = far;
      way = -way;
      far = k;
    }
  }
  if (along.length > 0) legs.push({ first: from, last: Math.max(far, along.length - 1) });
  return legs;
}

/** The rows of a coat as the hand made them, in its order. @param fan_m width of the fan that was wanted, for a hand that holds it elsewhere @throws RangeError */
export function rowsMade(outline: Polygon, { hand, turned }: Pick<CoatOfHand, "hand" | "turned">, fan_m: number): RowMade[] {
  const { along, across } = axesOf(turned);
  const lying = lyingOf(outline, turned);
  const { x0, x1, y0, y1 } = boundingBox(lying);
  const rows: RowMade[] = [];
  for (const { first, last } of legsOf(hand.map(along))) {
    const a = along(hand[first]!);
    const b = along(hand[last]!);
    if (Math.abs(b - a) < SHORTEST_M) continue;
    const way = b > a ? 1 : -1;
    const middle_m = across(hand[(first + last) >> 1]!);
    const [from_m, to_m] = inRange(() => reachAt(lying, Math.min(y1, Math.max(y0, middle_m)), fan_m)) ?? [x0, x1];
    const on = hand.slice(first, last).filter((m) => m.pulled && along(m) >= from_m && along(m) <= to_m);
    if (on.length < 2) continue;
    let k0 = first;
    let k1 = last - 1;
    while (!hand[k0]!.pulled) k0++;
    while (!hand[k1]!.pulled) k1--;
    // A moment says what is done from it on: it is let go where the next one is.
    const [begins, ends] = [along(hand[k0]!), along(hand[k1 + 1]!)];
    const [enters, leaves] = way === 1 ? [from_m, to_m] : [to_m, from_m];
    const time_s = on.at(-1)!.t_s - on[0]!.t_s;
    const across_m = on.reduce((sum, m) => sum + across(m), 0) / on.length;
    const distances = on.map((m) => m.distance_m);
    const speed_m_s = time_s > 0 ? Math.abs(along(on.at(-1)!) - along(on[0]!)) / time_s : 0;
    rows.push({
      first,
      last,
      way,
      across_m,
      drift_m: across(on.at(-1)!) - across(on[0]!),
      speed_m_s,
      slowest: slowestOf(on, along) ?? { speed_m_s, t_s: on[0]!.t_s },
      distance_m: distances.reduce((sum, d) => sum + d, 0) / distances.length,
      distances_m: [Math.min(...distances), Math.max(...distances)],
      pulledBefore_m: (enters - begins) * way,
      letGoAfter_m: (ends - leaves) * way,
      stoodOutside_s: stoodOutside(hand.slice(first, last + 1), along, { from_m, to_m, speed_m_s }),
      overlap: overlapWith(rows, across_m, fan_m),
    });
  }
  return rows;
}

function slowestOf(on: readonly HandMoment[], along: (m: HandMoment) => number): RowMade["slowest"] | null {
  let slowest: RowMade["slowest"] | null = null;
  let k = 0;
  for (let j = 1; j < on.length; j++) {
    while (on[j]!.t_s - on[k + 1]!.t_s >= LOOK_S) k++;
    const time_s = on[j]!.t_s - on[k]!.t_s;
    if (time_s < LOOK_S) continue;
    const speed_m_s = Math.abs(along(on[j]!) - along(on[k]!)) / time_s;
    if (!slowest || speed_m_s < slowest.speed_m_s) slowest = { speed_m_s, t_s: on[k]!.t_s };
  }
  return slowest;
}

/** A hand slower than this share of its row's speed stands. */
const STANDS = 0.3;
function stoodOutside(
  leg: readonly HandMoment[],
  along: (m: HandMoment) => number,
  { from_m, to_m, speed_m_s }: { from_m: number; to_m: number; speed_m_s: number },
): number {
  let sum_s = 0;
  for (let k = 0; k + 1 < leg.length; k++) {
    const [m, next] = [leg[k]!, leg[k + 1]!];
    const outside = along(m) < from_m || along(m) > to_m;
    const dt_s = next.t_s - m.t_s;
    if (m.pulled && outside && Math.abs(along(next) - along(m)) < STANDS * speed_m_s * dt_s) sum_s += dt_s;
  }
  return sum_s;
}

/** Of a row with the nearest before it above or below: a row that was gone over again says nothing of the next. */
function overlapWith(before: readonly RowMade[], across_m: number, fan_m: number): number | null {
  const last = before.at(-1);
  return last ? Math.max(0, 1 - Math.abs(across_m - last.across_m) / fan_m) : null;
}
