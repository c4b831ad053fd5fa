import type { HeldWork } from "../models/defects/holds";
import { climateChecks, countsUntil } from "../models/prep/preflight";
import { inRange } from "../kernel/guard";
import { WHOLE_PANEL, faultsHolding, softFilm, workedAhead } from "../panel/fault-holds";
import type { CourseAsked } from "../coat/next-wait";
import { type StepHold, holdsAt } from "./step-hold";

/** What holds more clear back at a moment: marked faults below it, the climate that was read, a pot that is over. Worst first. */
export const coatHolds = ({ facts, sheet, now_ms }: Pick<CourseAsked, "facts" | "sheet"> & { now_ms: number }): StepHold[] =>
  holdsAt(coatHoldsAhead({ facts, sheet }), now_ms);

/** The same whenever it is asked, for what is kept: each says from when on, or until when. */
export function coatHoldsAhead({ facts, sheet }: Pick<CourseAsked, "facts" | "sheet">): StepHold[] {
  return [...faults(facts, "clear"), ...climate(facts, sheet), ...pot(facts)];
}

/** What holds paper and polish back: over the panel, or where the steps of its plan still to come are done. */
export const paperHolds = (facts: CourseAsked["facts"]): StepHold[] => faults(facts, "paper", workedAhead(facts) ?? WHOLE_PANEL);

/** A film marked as soft: a probe marks it, and it is not called hard. */
export function softHolds(facts: CourseAsked["facts"]): StepHold[] {
  const fault = softFilm(facts);
  return fault ? [{ by: "fault", fault }] : [];
}

const faults = (facts: CourseAsked["facts"], what: HeldWork, work = WHOLE_PANEL): StepHold[] =>
  faultsHolding(facts, what, work).map((fault) => ({ by: "fault", fault }));

function climate({ climate: newest }: CourseAsked["facts"], sheet: CourseAsked["sheet"]): StepHold[] {
  const checks = (newest && inRange(() => climateChecks(newest.body, sheet))) ?? [];
  return checks.flatMap((check) =>
    check.state === "stop" ? [{ by: "climate" as const, check, until_ms: countsUntil(newest!.at_ms) }] : [],
  );
}

function pot({ pots }: CourseAsked["facts"]): StepHold[] {
  const newest = pots.at(-1);
  return newest && newest.left_m3 > 0 ? [{ by: "pot", over_ms: newest.until_ms }] : [];
}
