import { removalAtMarks } from "../models/correction/measured-step";
import {
  type MarkRead,
  NO_MARKS,
  type MarkConditions,
  conditionedOnMarks,
  withMark,
  unconditioned,
  twiceCommon_m2,
  withOwn,
} from "../models/correction/removal-on-marks";
import { thinsPanel } from "./thins-panel";
import { type Removal, scaled, sumOf } from "../models/correction/removal-plan";
import type { BodyInputOf } from "../record/bodies";
import { type EntryOf, type LedgerEntry, ofKind } from "../record/entry";

type Measured = NonNullable<BodyInputOf<"step">["measured"]>;

/** What came off at a step's marks, as it was read. */
export function readAtMark({ more = [], ...first }: Measured): MarkRead {
  const films = (list: Measured["before"]) => list.map((r) => r.thickness_m);
  return removalAtMarks([first, ...more].map(({ before, after }) => ({ before_m: films(before), after_m: films(after) })));
}

/** On a run or a nib there is more to take off than a pass's own depth: a mark there says nothing of the paper. */
export const tellsOfPaper = (zone: EntryOf<"step">["body"]["zone"]): boolean => zone !== "run" && zone !== "spot";

/** What of a step's doubt is its own, by name. */
const ownOf = (step: EntryOf<"step">) => `own ${step.id}`;

/**
 * What the marks of a panel tell: of any plan from now on, and of the newest plan beyond what it knew when it was made (its own steps have that
 * in them already).
 */
export function readMarks(entries: readonly LedgerEntry[]): {
  told: MarkConditions;
  toldSince: MarkConditions;
  sinceOf: ReadonlyMap<string, MarkConditions>;
} {
  const plans = new Map<string, { steps: EntryOf<"plan">["body"]["steps"]; knew: MarkConditions; since: MarkConditions }>();
  let told = NO_MARKS;
  for (const e of entries) {
    if (e.kind === "plan") plans.set(e.id, { steps: e.body.steps, knew: told, since: NO_MARKS });
    if (e.kind !== "step" || !e.body.measured || !tellsOfPaper(e.body.zone)) continue;
    const plan = plans.get(e.body.planId);
    const step = plan?.steps[e.body.index];
    if (!plan || !step) continue;
    const mark = readAtMark(e.body.measured);
    plan.since = withMark(plan.since, step, mark, ownOf(e));
    told = withMark(told, unconditioned(step, plan.knew), mark, ownOf(e));
  }
  return {
    told,
    toldSince: [...plans.values()].at(-1)?.since ?? NO_MARKS,
    sinceOf: new Map([...plans].map(([id, { since }]) => [id, since])),
  };
}

/** A plan with its steps from one on as the marks read since it was made have told them; what is done stays as it was planned. */
export const planOnMarks = (plan: EntryOf<"plan">, told: MarkConditions, from: number): EntryOf<"plan"> => ({
  ...plan,
  body: { ...plan.body, steps: plan.body.steps.map((s, i) => (i < from ? s : conditionedOnMarks(s, told))) },
});

/**
 * What came off in the steps done, each with what its doubt has in common with the others and with what is still to come: a mark's error, a backing's
 * depth. By the steps' entries; what no plan knows has nothing in common.
 */
export function doneSteps(
  plan: EntryOf<"plan"> | null,
  { done, told }: { done: readonly EntryOf<"step">[]; told: MarkConditions },
): Map<string, Removal> {
  return new Map(
    done.flatMap((e): [string, Removal][] => {
      const step = plan?.body.steps[e.body.index];
      if (!plan || !step || e.body.planId !== plan.id) return [];
      const marked = e.body.measured && tellsOfPaper(e.body.zone);
      const then = conditionedOnMarks(marked ? withOwn(step, ownOf(e)) : step, told);
      // One pass more of several: as much of what is common.
      const share = step.removal_m > 0 && e.body.extra ? e.body.removal_m / step.removal_m : 1;
      return [[e.id, { removal_m: e.body.removal_m, u_m: e.body.u_m, common_m: scaled(then, share).common_m }]];
    }),
  );
}

/** The same of every plan that was worked: a step's doubt has its parts in common whichever plan it was of. */
export function allDoneSteps(entries: readonly LedgerEntry[], sinceOf: ReadonlyMap<string, MarkConditions>): Map<string, Removal> {
  const steps = ofKind(entries, "step");
  return new Map(
    ofKind(entries, "plan").flatMap((plan) => {
      const done = steps.filter((s) => s.body.planId === plan.id);
      return done.length === 0 ? [] : [...doneSteps(plan, { done, told: sinceOf.get(plan.id) ?? NO_MARKS })];
    }),
  );
}

/**
 * Doubt of what the steps done took off, as each adds to those before it that nobody has read over since: what is common adds, the rest goes in
 * squares. And what all of those together have in common with the steps still to come.
 */
export function leaningOn(
  entries: readonly LedgerEntry[],
  done: ReadonlyMap<string, Removal>,
): { u_m: Map<string, number>; open: Removal } {
  const u_m = new Map<string, number>();
  let open: Removal[] = [];
  for (const e of entries) {
    if (e.kind === "reading" && e.body.phase !== "before") open = [];
    const step = e.kind === "step" && thinsPanel(e) ? done.get(e.id) : undefined;
    if (!step) continue;
    const with_m2 = open.reduce((a, o) => a + twiceCommon_m2(o, step), 0);
    u_m.set(e.id, Math.sqrt(Math.max(0, step.u_m ** 2 + with_m2)));
    open.push(step);
  }
  return { u_m, open: sumOf(open) };
}
