import { polygonArea } from "../kernel/geometry/geometry";
import { reachOf, correctionSchool } from "../models/correction/schools";
import { type Fault, type RemedyId, leftShare } from "../models/defects/remedies";
import { isFold, isInclusion } from "../models/defects/kinds";
import { type PanelFacts, measuredRuns } from "../panel/derive-panel";
import { regionOfPlan } from "../panel/builds";
import type { BodyOf } from "../record/bodies";
import { type EntryOf, pointsOf } from "../record/entry";
import { filledSince, liesIn, markedRegion } from "./zone-places";

export type NotedForFaults = Pick<PanelFacts, "defects" | "builds" | "plan" | "stepsDone" | "localWork" | "spots">;

/** A way that leaves no more than this of a fault has mended it. */
const MENDED = 0.3;
const WAY_OF = { panel: "full", spots: "spot", polish: "polish" } as const satisfies Record<ReturnType<typeof reachOf>, RemedyId>;

/** What was done to a panel since an entry, as ways: a plan carried through, and clear laid over a flatted surface. */
function doneSince({ plan, stepsDone, builds }: NotedForFaults, mark: EntryOf<"defect">): RemedyId[] {
  const worked = plan !== null && plan.seq > mark.seq && stepsDone.length >= plan.body.steps.length;
  const recleared = builds.slice(1).some((b) => b.from_seq > mark.seq);
  return [...(worked ? wayThere(plan.body, mark) : []), ...(recleared ? (["flow"] as const) : [])];
}

/** What a plan does where something is marked: by its school, but outside the part that it levels only spots and what is filled. */
function wayThere(plan: BodyOf<"plan">, mark: EntryOf<"defect">): RemedyId[] {
  const region = regionOfPlan(plan);
  const levelled = liesIn(mark, region);
  const way = levelled ? WAY_OF[reachOf(correctionSchool(plan.schoolId))] : WAY_OF.spots;
  return [way, ...(plan.fill ? (["dropFill"] as const) : [])];
}

const areaOf = ({ trace, length_m, width_m }: EntryOf<"defect">["body"]): number | null =>
  trace?.as === "area" && trace.at.length > 2
    ? Math.abs(polygonArea(pointsOf(trace.at)))
    : length_m !== null && width_m !== null
      ? length_m * width_m
      : null;

/** Marks of faults that were not mended since, beside nibs and sized runs. */
export function openMarks(panel: NotedForFaults): EntryOf<"defect">[] {
  // A sized run is open and worked by its school, or has been taken down.
  const sized = new Set(measuredRuns(panel).map((r) => r.entry.id));
  return panel.defects.filter(
    (d) =>
      !isInclusion(d.body.kind) &&
      !sized.has(d.id) &&
      !filledSince(panel, d) &&
      !doneSince(panel, d).some((w) => leftShare(d.body.kind, w) <= MENDED),
  );
}

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
