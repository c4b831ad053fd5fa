import { assessPanel } from "#core/film/assess-panel";
import { onePass } from "#core/correction/clearing";
import { type CorrectionChoice, correctionInput } from "#core/correction/correction-input";
import type { ServerContext } from "../context";
import type { PanelView } from "../views/panel-view";
import { recordEntry } from "./record-entry";
import { Refusal } from "./refusal";

/** Stores a plan with the verdict worked out here, from the file's readings at this moment, not from what a window showed. */
export async function storePlan(
  ctx: ServerContext,
  view: PanelView,
  input: { choice: Omit<CorrectionChoice, "floor_m" | "shop">; by: string; clientKey: string | null },
): Promise<string> {
  const choice = { ...input.choice, floor_m: view.floor_m, shop: view.shopRemoval };
  const { steps, total, assess } = correctionInput(view.panel, view.state, choice);
  const a = assessPanel(assess);
  if (a.verdict === "none") throw new Refusal(null, a.reason ?? "Too few readings for a verdict");
  return recordEntry(ctx, {
    panelId: view.panel.id,
    kind: "plan",
    by: input.by,
    clientKey: input.clientKey,
    body: {
      schoolId: choice.schoolId as "short",
      runSchool: choice.runSchool,
      tape_m: choice.tape_m,
      floor_m: choice.floor_m,
      steps,
      removal_m: total.removal_m,
      u_removal_m: total.u_m,
      verdict: a.verdict,
      cutChance: a.cutChance,
      thinChance: a.thinChance,
      inferred: a.inferred,
    },
  });
}

/** Ticks the next step of the plan in force; its forecast comes off the film until somebody measures again. */
export async function completeStep(
  ctx: ServerContext,
  view: PanelView,
  input: { planId: string; index: number; note: string; by: string; clientKey: string | null },
): Promise<string> {
  const { plan, stepsDone } = view.state;
  if (!plan || plan.id !== input.planId) throw new Refusal(null, "The plan was changed in another window. Look again.");
  const step = plan.body.steps[input.index];
  if (!step || input.index !== stepsDone.length) throw new Refusal(null, "Steps are ticked in their order. Look again.");
  const { name, removal_m, u_m } = step;
  return recordEntry(ctx, {
    panelId: view.panel.id,
    kind: "step",
    by: input.by,
    clientKey: input.clientKey,
    body: { planId: plan.id, index: input.index, name, removal_m, u_m, note: input.note },
  });
}

/** One pass more of the step ticked last: scratches of the step before were still there. Its film comes off as well. */
export async function passAgain(ctx: ServerContext, view: PanelView, o: { planId: string; by: string }): Promise<string> {
  const { plan, stepsDone } = view.state;
  if (!plan || plan.id !== o.planId) throw new Refusal(null, "The plan was changed in another window. Look again.");
  const index = stepsDone.length - 1;
  const use = plan.body.steps[index]?.use;
  if (!use) throw new Refusal(null, "There is no sanding or polishing step to go over again");
  const { removal_m, u_m } = onePass(use);
  const name = `${plan.body.steps[index]!.name}, once more`;
  return recordEntry(ctx, {
    panelId: view.panel.id,
    kind: "step",
    by: o.by,
    body: { planId: plan.id, index, name, removal_m, u_m, note: "", extra: true },
  });
}

/** Colour on the cloth: the clear is through, and the plan stops here. */
export function stopThrough(ctx: ServerContext, view: PanelView, o: { note: string; by: string }): Promise<string> {
  return recordEntry(ctx, { panelId: view.panel.id, kind: "throughClear", by: o.by, body: { note: o.note } });
}
