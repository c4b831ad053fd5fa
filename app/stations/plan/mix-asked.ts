import type { MixInput, MixPlan } from "#core/models/mix/mix-plan";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import { later } from "~/kit/root/later";

/** How its figures came about, fetched when asked. */
export type MixWorkings = ReturnType<typeof workingsOf>;

/** How its figures came about: fetched with the tap that asks, or when idle: the server may be away by then. */
export const workingWords = later(() => import("~/kit/words/mix-workings"));
export function workingsOf(plan: MixPlan, input: MixInput, units: UnitPreferences) {
  const make = (which: "mixWorking" | "potWorking" | "vocWorking") => () =>
    workingWords.get().then((words) => words[which](plan, input, units));
  return { mix: make("mixWorking"), pot: make("potWorking"), voc: make("vocWorking") };
}
