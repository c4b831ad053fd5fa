import type { Point } from "../kernel/geometry/geometry";
import type { LocalWorkDone } from "./builds";

/** Two places nearer than this are one: a thumb's breadth. */
const SAME_PLACE_M = 0.015;

/** Whether two places are one. */
export const near = ([ax, ay]: Point, [bx, by]: Point) => (ax - bx) ** 2 + (ay - by) ** 2 < SAME_PLACE_M ** 2;

/** Whether the work at a place came after something was noted there: it is dealt with. */
export const workedSince = (
  localWork: readonly LocalWorkDone[],
  zone: LocalWorkDone["zone"],
  places: readonly Point[],
  seq: number,
): boolean =>
  places.length > 0 &&
  places.every((at) => localWork.some((w) => w.zone === zone && w.seq > seq && (w.at.length === 0 || w.at.some((p) => near(p, at)))));
