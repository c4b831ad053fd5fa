import type { Point } from "../kernel/geometry/geometry";
import { type Region, inRegion } from "../kernel/geometry/region";
import { leftShare } from "../models/defects/remedies";
import { type EntryOf, pointsOf } from "../record/entry";
import type { PanelFacts } from "./derive-panel";
import { workedSince } from "./worked-since";

/** Every place of a mark: each of several points, else the one it stands at. */
export const placesOf = ({ body: { at, trace } }: EntryOf<"defect">): Point[] =>
  trace?.as === "points" ? pointsOf(trace.at) : pointsOf([at]);

/** Whether a drop was let in at a place since it was noted, and levelled. */
export function filledSince({ localWork }: Pick<PanelFacts, "localWork">, mark: EntryOf<"defect">): boolean {
  const since = (done: (removal_m: number) => boolean) =>
    workedSince(
      localWork.filter((w) => done(w.removal_m)),
      "spot",
      placesOf(mark),
      mark.seq,
    );
  return leftShare(mark.body.kind, "dropFill") < 1 && since((m) => m === 0) && since((m) => m > 0);
}

/** An area lies in a region when its corners do, taken in so far that it lies in its own outline. */
const TAKEN_IN = 0.02;

/** Whether something lies in a region with everything that was drawn of it. */
export function liesIn({ body: { at, trace } }: EntryOf<"defect">, region: Region | null): boolean {
  const drawn = pointsOf(trace?.at ?? [at]);
  const mean = (k: 0 | 1) => drawn.reduce((a, p) => a + p[k], 0) / drawn.length;
  const [x, y] = [mean(0), mean(1)];
  const inner = trace?.as === "area" ? drawn.map((p): Point => [p[0] + TAKEN_IN * (x - p[0]), p[1] + TAKEN_IN * (y - p[1])]) : drawn;
  return inner.every((p) => inRegion(p, region));
}
