import { removalAtMark } from "../models/correction/measured-step";
import { NOTHING_TOLD, type Told, asTold, toldBy, untold } from "../models/correction/removal-told";
import type { Removal } from "../models/correction/removal-plan";
import type { EntryOf, LedgerEntry } from "../record/entry";

type Measured = NonNullable<EntryOf<"step">["body"]["measured"]>;

/** What came off at a step's mark, as it was read. */
export function readAtMark({ before, after }: Measured): Removal {
  const films = (list: Measured["before"]) => list.map((r) => r.thickness_m);
  return removalAtMark(films(before), films(after));
}

/** On a run or a nib there is more to take off than a pass's own depth: a mark there says nothing of the paper. */
export const tellsOfPaper = (zone: EntryOf<"step">["body"]["zone"]): boolean => zone !== "run" && zone !== "spot";

/**
 * What the marks of a panel tell: of any plan from now on, and of the newest plan beyond what it knew when it was made (its own steps have that
 * in them already).
 */
export function toldByMarks(entries: readonly LedgerEntry[]): { told: Told; toldSince: Told } {
  const plans = new Map<string, { steps: EntryOf<"plan">["body"]["steps"]; knew: Told; since: Told }>();
  let told = NOTHING_TOLD;
  for (const e of entries) {
    if (e.kind === "plan") plans.set(e.id, { steps: e.body.steps, knew: told, since: NOTHING_TOLD });
    if (e.kind !== "step" || !e.body.measured || !tellsOfPaper(e.body.zone)) continue;
    const plan = plans.get(e.body.planId);
    const step = plan?.steps[e.body.index];
    if (!plan || !step) continue;
    const mark = readAtMark(e.body.measured);
    plan.since = toldBy(plan.since, step, mark);
    told = toldBy(told, untold(step, plan.knew), mark);
  }
  return { told, toldSince: [...plans.values()].at(-1)?.since ?? NOTHING_TOLD };
}

/** A plan with its steps from one on as the marks read since it was made have told them; what is done stays as it was planned. */
export const planAsTold = (plan: EntryOf<"plan">, told: Told, from: number): EntryOf<"plan"> => ({
  ...plan,
  body: { ...plan.body, steps: plan.body.steps.map((s, i) => (i < from ? s : asTold(s, told))) },
});
