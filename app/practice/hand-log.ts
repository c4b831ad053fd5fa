import type { Polygon } from "#core/kernel/geometry/geometry";
import { type HandMoment, axesOf, heldAt } from "#core/practice/hand";
import { type RowMade, rowsMade } from "#core/practice/rows-made";
import { MOMENT } from "#workers/bench-talk";

/** A device that stood still for longer than this has lost where the hand went meanwhile. */
const LONGEST_S = 5;
/** The gun is seen as long as it is so far from the border of what is seen. */
const ASIDE_M = 0.02;
/** So long a time of the hand is one look at its speed. */
const SPEED_S = 0.25;

/** Where the gun is, as pointer, finger, pen or keys have put it. */
export interface GunAt {
  x_m: number;
  y_m: number;
  distance_m: number;
  pulled: boolean;
  /** Keys that steer it: so fast, in units of the hand's own speed. */
  steers: { x: number; y: number };
}

/** How the hand goes now. */
export interface HandNow {
  speed_m_s: number;
  distance_m: number;
  overlap: number | null;
  pulled: boolean;
}

/** The gun over the panel and where it has been, moment after moment of one coat. */
export class HandLog {
  readonly gun: GunAt;
  private moments: HandMoment[] = [];
  private sent = 0;
  private turned = false;
  private reach = { x0: -1, x1: 5, y0: -1, y1: 5 };
  /** Time of the last moment, whether a frame said it, and of the one before it. */
  private lastAt_s: number | null = null;
  private unsure = false;
  private sureAt_s: number | null = null;

  constructor(distance_m: number) {
    this.gun = { x_m: -0.08, y_m: 0, distance_m, pulled: false, steers: { x: 0, y: 0 } };
  }

  /** What is seen beside the part: the gun goes no farther. */
  keepsWithin(reach: HandLog["reach"]): void {
    this.reach = reach;
  }
  /** A coat begins, or goes on after moments that are known already. */
  begins(turned: boolean, known: readonly HandMoment[] = []): void {
    this.moments = [...known];
    this.sent = this.moments.length;
    this.turned = turned;
  }
  get t_s(): number {
    return this.moments.at(-1)?.t_s ?? 0;
  }
  /** No time passes until it is told again where the gun is. */
  pauses(): void {
    this.lastAt_s = null;
  }
  /** The hand is watched from now on. */
  isWatched(): void {
    this.unsure = false;
    this.lastAt_s = null;
  }

  /**
   * The gun as it is now was so at this moment: told by each event of a pointer with its own time, and by every frame. What a frame says holds until an
   * event says otherwise of the time before it: after a moment in which the device stood still frames come first.
   */
  passes(at_s: number, ofFrame: boolean): void {
    if (this.unsure && this.lastAt_s !== null && at_s < this.lastAt_s) {
      this.moments.pop();
      this.lastAt_s = this.sureAt_s;
    }
    this.sureAt_s = this.lastAt_s;
    this.unsure = ofFrame;
    const since_s = this.lastAt_s === null ? 0 : at_s - this.lastAt_s;
    const dt_s = since_s > LONGEST_S ? 0 : Math.max(0, since_s);
    this.lastAt_s = Math.max(at_s, this.lastAt_s ?? at_s);
    const { gun } = this;
    gun.distance_m = heldAt(gun.distance_m);
    this.moments.push({ t_s: this.t_s + dt_s, x_m: gun.x_m, y_m: gun.y_m, distance_m: gun.distance_m, pulled: gun.pulled });
  }
  /** Keys have moved the gun since the last moment. @param pace_m_s of the hand that steers with full speed */
  isSteered(at_s: number, pace_m_s: number): void {
    const dt_s = this.lastAt_s === null ? 0 : Math.min(LONGEST_S, Math.max(0, at_s - this.lastAt_s));
    const within = (at: number, low: number, high: number) => Math.min(high - ASIDE_M, Math.max(low + ASIDE_M, at));
    const { gun, reach } = this;
    gun.x_m = within(gun.x_m + gun.steers.x * pace_m_s * dt_s, reach.x0, reach.x1);
    gun.y_m = within(gun.y_m + gun.steers.y * pace_m_s * dt_s, reach.y0, reach.y1);
  }

  /** What the hand did since the last time, as it is handed to the bench; null: nothing. */
  news(): Float64Array<ArrayBuffer> | null {
    const news = this.moments.slice(this.sent);
    if (news.length === 0) return null;
    this.sent = this.moments.length;
    const moments = new Float64Array(news.length * MOMENT);
    news.forEach((m, k) => moments.set([m.t_s, m.x_m, m.y_m, m.distance_m, m.pulled ? 1 : 0], k * MOMENT));
    return moments;
  }
  rows(outline: Polygon, fan_m: number): RowMade[] {
    return rowsMade(outline, { hand: this.moments, turned: this.turned }, fan_m);
  }
  now(rows: readonly RowMade[], fan_m: number): HandNow {
    const last = this.moments.at(-1)!;
    const before = this.moments.findLast((m) => last.t_s - m.t_s >= SPEED_S) ?? this.moments[0]!;
    const dt_s = last.t_s - before.t_s;
    const speed_m_s = dt_s > 0 ? Math.hypot(last.x_m - before.x_m, last.y_m - before.y_m) / dt_s : 0;
    const across_m = axesOf(this.turned).across(last);
    const over = rows.findLast((r) => r.last < this.moments.length - 2 && Math.abs(r.across_m - across_m) > 0.02);
    return {
      speed_m_s,
      distance_m: last.distance_m,
      overlap: over ? Math.max(0, 1 - Math.abs(over.across_m - across_m) / fan_m) : null,
      pulled: last.pulled,
    };
  }
}
