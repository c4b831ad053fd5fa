import { polygonArea } from "../kernel/geometry/geometry";
import { reachOf, correctionSchool } from "../models/correction/schools";
import { type Fault, type RemedyId, leftShare } from "../models/defects/remedies";
import { isFold, isInclusion } from "../models/defects/kinds";
import { type PanelFacts, measuredRuns } from "../panel/derive-panel";
import type { EntryOf } from "../record/entry";

type Noted = Pick<PanelFacts, "defects" | "builds" | "plan" | "stepsDone">;

/** A way that leaves no more than this of a fault has mended it. */
const MENDED = 0.3;
const WAY_OF = { panel: "full", spots: "spot", polish: "polish" } as const satisfies Record<ReturnType<typeof reachOf>, RemedyId>;

/** What was done to a panel since an entry, as ways: a plan carried through, and clear laid over a flatted surface. */
function doneSince({ plan, stepsDone, builds }: Noted, seq: number): RemedyId[] {
  const worked = plan !== null && plan.seq > seq && stepsDone.length >= plan.body.steps.length;
  const recleared = builds.slice(1).some((b) => b.from_seq > seq);
  return [...(worked ? [WAY_OF[reachOf(correctionSchool(plan.body.schoolId))]] : []), ...(recleared ? (["flow"] as const) : [])];
}

const areaOf = ({ trace, length_m, width_m }: EntryOf<"defect">["body"]): number | null =>
  trace?.as === "area" && trace.at.length > 2
    ? Math.abs(polygonArea(trace.at.map((p): [number, number] => [p.x_m, p.y_m])))
    : length_m !== null && width_m !== null
      ? length_m * width_m
      : null;

/**
 * Faults that were noted and not mended since, beside nibs (which are counted) and sized runs (which are worked by their own schools): of each kind all
 * places together.
 */
export function openFaults(panel: Noted): Fault[] {
  // A sized run is open and worked by its school, or has been taken down.
  const sized = new Set(measuredRuns(panel).map((r) => r.entry.id));
  const open = panel.defects.filter(
    (d) => !isInclusion(d.body.kind) && !sized.has(d.id) && !doneSince(panel, d.seq).some((w) => leftShare(d.body.kind, w) <= MENDED),
  );
  const byKind = new Map<string, Fault>();
  for (const { body } of open) {
    const { kind, count } = body;
    const area_m2 = areaOf(body);
    const before = byKind.get(kind);
    byKind.set(kind, {
      kind,
      count: (before?.count ?? 0) + count,
      height_m: isFold(kind) ? null : body.height_m,
      area_m2: before ? (before.area_m2 === null || area_m2 === null ? null : before.area_m2 + area_m2) : area_m2,
    });
  }
  return [...byKind.values()];
}
