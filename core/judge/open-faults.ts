import { polygonArea } from "../kernel/geometry/geometry";
import type { Fault } from "../models/defects/remedies";
import { isFold } from "../models/defects/kinds";
import { type EntryOf, pointsOf } from "../record/entry";
import { liesIn } from "../panel/mark-places";
import { type NotedForFaults, openMarks } from "../panel/open-marks";
import { markedRegion } from "./zone-places";

const areaOf = ({ trace, length_m, width_m }: EntryOf<"defect">["body"]): number | null =>
  trace?.as === "area" && trace.at.length > 2
    ? Math.abs(polygonArea(pointsOf(trace.at)))
    : length_m !== null && width_m !== null
      ? length_m * width_m
      : null;

/**
 * Faults that were noted and not mended since, beside nibs (which are counted) and sized runs (which are worked by their own schools): of each kind all
 * places together.
 */
export function openFaults(panel: NotedForFaults): Fault[] {
  const byKind = new Map<string, Fault>();
  const region = markedRegion(panel);
  for (const mark of openMarks(panel)) {
    const { body } = mark;
    const { kind, count } = body;
    const area_m2 = areaOf(body);
    const before = byKind.get(kind);
    byKind.set(kind, {
      kind,
      count: (before?.count ?? 0) + count,
      height_m: isFold(kind) ? null : body.height_m,
      marked: liesIn(mark, region) && (before?.marked ?? true),
      area_m2: before ? (before.area_m2 === null || area_m2 === null ? null : before.area_m2 + area_m2) : area_m2,
    });
  }
  return [...byKind.values()];
}
