import { correctionSchool, reachOf } from "../models/correction/schools";
import { isInclusion } from "../models/defects/kinds";
import { type RemedyId, leftShare } from "../models/defects/remedies";
import type { BodyOf } from "../record/bodies";
import type { EntryOf } from "../record/entry";
import { regionOfPlan } from "./builds";
import { type PanelFacts, measuredRuns } from "./derive-panel";
import { filledSince, liesIn } from "./mark-places";
import { isGone } from "./seen-to";

export type NotedForFaults = Pick<PanelFacts, "defects" | "builds" | "plan" | "stepsDone" | "localWork" | "spots" | "seenTo">;

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

/** Marks of faults that were not mended since, beside nibs and sized runs. */
export function openMarks(panel: NotedForFaults): EntryOf<"defect">[] {
  // A sized run is open and worked by its school, or has been taken down.
  const sized = new Set(measuredRuns(panel).map((r) => r.entry.id));
  return panel.defects.filter(
    (d) =>
      !isInclusion(d.body.kind) &&
      !sized.has(d.id) &&
      !isGone(panel, d) &&
      !filledSince(panel, d) &&
      !doneSince(panel, d).some((w) => leftShare(d.body.kind, w) <= MENDED),
  );
}
