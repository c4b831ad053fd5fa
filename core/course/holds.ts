import type { HeldWork } from "../models/defects/holds";
import { climateChecks, stillCounts } from "../models/prep/preflight";
import { inRange } from "../kernel/guard";
import { WHOLE_PANEL, faultsHolding, workedAt } from "../panel/fault-holds";
import type { CourseAsked } from "./next-wait";
import type { StepHold } from "./step-hold";

/** What holds more clear back now: marked faults below it, the climate of today, a pot that is over. Worst first. */
export function coatHolds({ facts, sheet, now_ms }: Pick<CourseAsked, "facts" | "sheet"> & { now_ms: number }): StepHold[] {
  return [...faults(facts, "clear"), ...climate(facts, sheet, now_ms), ...pot(facts, now_ms)];
}

/** What holds paper and polish back: over the panel, or where the steps of its plan still to come are done. */
export function paperHolds(facts: CourseAsked["facts"]): StepHold[] {
  const { plan, stepsDone } = facts;
  const ahead = plan && workedAt({ steps: plan.body.steps.slice(stepsDone.length), part: plan.body.part });
  return faults(facts, "paper", ahead ?? WHOLE_PANEL);
}

const faults = (facts: CourseAsked["facts"], what: HeldWork, work = WHOLE_PANEL): StepHold[] =>
  faultsHolding(facts, what, work).map((fault) => ({ by: "fault", fault }));

function climate({ climate: newest }: CourseAsked["facts"], sheet: CourseAsked["sheet"], now_ms: number): StepHold[] {
  if (!newest || !stillCounts(newest.at_ms, now_ms)) return [];
  const checks = inRange(() => climateChecks(newest.body, sheet)) ?? [];
  return checks.flatMap((check) => (check.state === "stop" ? [{ by: "climate" as const, check }] : []));
}

function pot({ pots }: CourseAsked["facts"], now_ms: number): StepHold[] {
  const newest = pots.at(-1);
  return newest && newest.until_ms <= now_ms && newest.left_m3 > 0 ? [{ by: "pot", over_ms: newest.until_ms }] : [];
}
