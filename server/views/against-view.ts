import { coatsAsked } from "#core/coat/asked";
import { courseOf } from "#core/course/course";
import type { StepHold } from "#core/course/step-hold";
import { nextAction } from "#core/course/steps";
import type { PanelView } from "./panel-view";

/** A moment before its time is no matter. */
const SOON_MS = 30_000;

/** What spoke against the next coat, or against heat, at a moment: said to whoever does it all the same; nothing is refused. */
export function againstNow(view: PanelView, what: "coat" | "heat", now_ms: number): StepHold[] {
  const { state, job } = view;
  const steps = courseOf({ ...coatsAsked(view, now_ms), finish: job.finish, forecast: false });
  const step = what === "coat" ? nextAction(steps) : (steps.find((s) => s.kind === "bake") ?? null);
  if (!step || (what === "coat" && step.kind !== "coat")) return [];
  const { from_ms, why } = step;
  const soon = from_ms !== null && from_ms > now_ms + SOON_MS && !state.baking;
  return [...step.holds, ...(soon ? [{ by: "soon" as const, until_ms: from_ms, why }] : [])];
}
