import type { Point } from "../kernel/geometry/geometry";
import { type Removal, sumOf } from "../models/correction/removal-plan";
import { type MarkConditions, twiceCommon_m2, unconditioned } from "../models/correction/removal-on-marks";
import { regionOfPlan } from "../panel/builds";
import { RUN_SCHOOLS } from "../models/correction/run-work";
import type { LocalWorkDone } from "../panel/builds";
import { near } from "../panel/worked-since";
import type { BodyOf, PlanStep } from "../record/bodies";
import type { LocalTask, PanelWork, Work } from "./film-judge";

/** What of a plan the judge goes by; a stored plan and one being made have it alike. */
export type PlanForWork = Pick<BodyOf<"plan">, "runSchool" | "byHand" | "judgedFrom_m" | "tape_m" | "floor_m" | "part"> & {
  steps: readonly Pick<PlanStep, "zone" | "removal_m" | "u_m" | "common_m" | "at">[];
};

/**
 * The work of a plan that is still to come, by place: over the panel, and at single places with what has been taken off there before.
 * @param from index of the first step not yet done @param done what its steps have taken off the panel since the film was read
 */
export function workOf(plan: PlanForWork, localWork: readonly LocalWorkDone[], from = 0, done: Removal | null = null): Work {
  const ahead = plan.steps.slice(from);
  return { panel: panelWork(plan, ahead, done), local: localTasks(plan, ahead, localWork), floor_m: plan.floor_m };
}

/** What comes off over the panel in the steps ahead. */
export const panelRemoval = (steps: readonly Pick<PlanStep, "zone" | "removal_m" | "u_m" | "common_m">[]): Removal =>
  sumOf(steps.filter((s) => s.zone === "panel"));

function panelWork(plan: PlanForWork, ahead: PlanForWork["steps"], done: Removal | null): PanelWork | null {
  const removal = panelRemoval(ahead);
  const { removal_m } = removal;
  // The film has the doubt of what is done in it: what both have in common is put to what is to come.
  const u_m = Math.sqrt(Math.max(0, removal.u_m ** 2 + (done ? twiceCommon_m2(done, removal) : 0)));
  return removal_m > 0
    ? { removal_m, u_m, rim_m: plan.judgedFrom_m ?? plan.tape_m, byHand: plan.byHand, region: regionOfPlan(plan) }
    : null;
}

/** Work at single places, place by place: what comes off at each, and whether a run is taken down there. */
export function workByPlace(
  steps: readonly (Pick<PlanStep, "zone" | "at"> & Removal)[],
): { at: Point; removals: Removal[]; run: boolean }[] {
  const places = new Map<string, { at: Point; removals: Removal[]; run: boolean }>();
  for (const step of steps) {
    if (step.zone !== "spot" && step.zone !== "run") continue;
    for (const { x_m, y_m } of step.at) {
      const key = `${x_m} ${y_m}`;
      const place = places.get(key) ?? { at: [x_m, y_m], removals: [], run: false };
      place.removals.push(step);
      place.run ||= step.zone === "run";
      places.set(key, place);
    }
  }
  return [...places.values()];
}

function localTasks(plan: PlanForWork, ahead: PlanForWork["steps"], localWork: readonly LocalWorkDone[]): LocalTask[] {
  const first = plan.steps.findIndex((s) => s.zone === "run");
  // A blade slips while it is in the hand: with the run school's first task done, that is over.
  const slips = plan.runSchool !== null && ahead.length >= plan.steps.length - first ? RUN_SCHOOLS[plan.runSchool] : null;
  return workByPlace(ahead).map(({ at, removals, run }): LocalTask => {
    const { removal_m, u_m } = sumOf(removals);
    const done = sumOf(localWork.filter((w) => w.at.some((p) => near(p, at))));
    return {
      at,
      removal_m,
      u_m,
      ...(done.removal_m > 0 ? { done_m: done.removal_m, uDone_m: done.u_m } : {}),
      ...(run && slips ? { gouge: { chance: slips.gougeChance, depth_m: slips.gouge_m[0], u_m: slips.gouge_m[1] } } : {}),
    };
  });
}

/** Steps that a plan's headline counts: those of the panel; of a plan for places only, all. */
export function countedSteps<S extends Pick<PlanStep, "zone">>(steps: readonly S[], from = 0): S[] {
  const onPanel = steps.some((s) => s.zone === "panel");
  return steps.slice(from).filter((s) => s.zone === "panel" || !onPanel);
}

/** What a plan takes off: off the flat; where it works only at places, at that of them where most comes off. */
export function headlineRemoval(steps: readonly Pick<PlanStep, "zone" | "removal_m" | "u_m" | "common_m" | "at">[], from = 0): Removal {
  const ahead = steps.slice(from);
  if (steps.some((s) => s.zone === "panel")) return panelRemoval(ahead);
  const each = workByPlace(ahead).map((place) => sumOf(place.removals));
  // Steps of older plans do not say where: they are taken as one place's.
  return each.length > 0 ? each.reduce((a, r) => (r.removal_m > a.removal_m ? r : a)) : sumOf(ahead);
}

/** The headline as it would be had no mark told anything; null where none did. */
export function withoutMarks(steps: Parameters<typeof headlineRemoval>[0], told: MarkConditions, from = 0): Removal | null {
  const before = steps.map((s) => unconditioned(s, told));
  return before.slice(from).some((s, i) => s !== steps[from + i]) ? headlineRemoval(before, from) : null;
}
