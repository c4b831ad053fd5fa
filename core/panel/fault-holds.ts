import type { Point } from "../kernel/geometry/geometry";
import { type Region, inRegion } from "../kernel/geometry/region";
import type { FaultHold, HeldWork } from "../models/defects/holds";
import { DEFECT_KINDS, type DefectKind } from "../models/defects/kinds";
import { regionOfPlan } from "./builds";
import type { PanelFacts } from "./derive-panel";
import type { BodyOf, PlanStep } from "../record/bodies";
import { type EntryOf, pointsOf } from "../record/entry";
import { type NotedForFaults, openMarks } from "./open-marks";
import { holdOfMark } from "./seen-to";

/** Where a work is done: over a part of the panel (null: all of it) or not over it at all, and at single places. */
export interface WorkedAt {
  over: { region: Region | null } | null;
  places: readonly Point[];
}
export const WHOLE_PANEL: WorkedAt = { over: { region: null }, places: [] };

/** A marked fault that says no to a work, with what has to come first. */
export interface HoldingFault extends FaultHold {
  kind: DefectKind;
  /** What it is called: who only says what comes first needs no list of kinds. */
  name: string;
  /** Where it stands; of an area its middle. */
  at: Point;
}

/** What is round a place belongs to it: lifted film is taken back so far beyond. Common practice: 125 to 150 mm. */
const ROUND_IT_M = 0.15;

/** Where the steps of a plan are done. */
export const workedAt = ({ steps, part }: { steps: readonly Pick<PlanStep, "zone" | "at">[]; part: BodyOf<"plan">["part"] }): WorkedAt => ({
  over: steps.some((s) => s.zone !== "run" && s.zone !== "spot") ? { region: regionOfPlan({ part }) } : null,
  places: steps.flatMap((s) => (s.zone === "run" || s.zone === "spot" ? pointsOf(s.at) : [])),
});

/** Where the steps of the plan in force that are still to come are done; null without a plan. */
export const workedAhead = ({ plan, stepsDone }: Pick<PanelFacts, "plan" | "stepsDone">): WorkedAt | null =>
  plan && workedAt({ steps: plan.body.steps.slice(stepsDone.length), part: plan.body.part });

/** Whether a work comes to where a fault is marked, or so near that it is part of it. */
function reaches({ body: { at, trace } }: EntryOf<"defect">, { where }: FaultHold, { over, places }: WorkedAt): boolean {
  if (where === "panel") return over !== null || places.length > 0;
  const drawn = pointsOf(trace?.at ?? [at]);
  const area: Region | null = trace?.as === "area" && drawn.length > 2 ? [drawn] : null;
  const near = ([x, y]: Point) =>
    (area !== null && inRegion([x, y], area)) || drawn.some(([dx, dy]) => Math.hypot(dx - x, dy - y) <= ROUND_IT_M);
  return (
    places.some(near) ||
    // Drawn into what is worked, or round it.
    (over !== null && (over.region === null || drawn.some((p) => inRegion(p, over.region)) || over.region.some((r) => r.some(near))))
  );
}

/**
 * The marked faults, not mended since, that hold a work back where it is done; those that stop it first.
 * @param what the kinds of work that it is made of
 */
export function faultsHolding(panel: NotedForFaults, what: HeldWork | readonly HeldWork[], work: WorkedAt): HoldingFault[] {
  const of = [what].flat();
  return openMarks(panel)
    .flatMap((mark): HoldingFault[] => {
      const hold = holdOfMark(panel, mark);
      const { x_m, y_m } = mark.body.at;
      return hold && hold.holds.some((h) => of.includes(h)) && reaches(mark, hold, work)
        ? [{ ...hold, kind: mark.body.kind, name: DEFECT_KINDS[mark.body.kind].name, at: [x_m, y_m] }]
        : [];
    })
    .sort((a, b) => Number(b.level === "stop") - Number(a.level === "stop"));
}

/** A film that is marked as soft: it is not hard, whatever its age and its heat say; null where none is. */
export const softFilm = (panel: NotedForFaults): HoldingFault | null =>
  faultsHolding(panel, ["paper", "clear"], WHOLE_PANEL).find((f) => f.until === "hard") ?? null;
