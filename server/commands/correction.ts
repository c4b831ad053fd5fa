import { assessPanel } from "#core/film/assess-panel";
import { onePass } from "#core/correction/clearing";
import { correctionInput } from "#core/correction/correction-input";
import { removalAtMark, weighMeasured } from "#core/correction/measured-step";
import type { ZoneChoice } from "#core/correction/zone-plan";
import type { BodyOf } from "#core/ledger/bodies";
import type { EntryOf } from "#core/ledger/entry";
import type { ServerContext } from "../context";
import type { PanelView } from "../views/panel-view";
import { recordEntry } from "./record-entry";
import { Refusal } from "./refusal";

/** Stores a plan with the verdict worked out here, from the file's readings at this moment, not from what a window showed. */
export async function storePlan(
  ctx: ServerContext,
  view: PanelView,
  input: { choice: Omit<ZoneChoice, "floor_m" | "shop">; by: string; clientKey: string | null },
): Promise<string> {
  const choice = { ...input.choice, floor_m: view.floor_m, shop: view.shopRemoval };
  const { plan, assess } = correctionInput(view.panel, view.state, choice);
  const a = assessPanel(assess);
  if (a.verdict === "none") throw new Refusal(null, a.reason ?? "Too few readings for a verdict");
  return recordEntry(ctx, {
    panelId: view.panel.id,
    kind: "plan",
    by: input.by,
    clientKey: input.clientKey,
    body: {
      schoolId: choice.schoolId as "short",
      runSchool: plan.runs ? choice.runSchool : null,
      tape_m: choice.tape_m,
      edges: choice.edges ?? "left",
      lines: choice.lines ?? "hand",
      byHand: plan.byHand,
      judgedFrom_m: plan.judgedFrom_m,
      localCutChance: plan.localCutChance,
      floor_m: choice.floor_m,
      steps: plan.steps,
      removal_m: plan.total.removal_m,
      u_removal_m: plan.total.u_m,
      verdict: a.verdict,
      cutChance: a.cutChance,
      thinChance: a.thinChance,
      inferred: a.inferred,
    },
  });
}

/** The plan in force, if it is still the one the window showed. */
function planInForce(view: PanelView, planId: string): EntryOf<"plan"> {
  const { plan } = view.state;
  if (!plan || plan.id !== planId) throw new Refusal(null, "The plan was changed in another window. Look again.");
  return plan;
}

function nextStep(view: PanelView, plan: EntryOf<"plan">, index: number) {
  const step = plan.body.steps[index];
  if (!step || index !== view.state.stepsDone.length) throw new Refusal(null, "Steps are ticked in their order. Look again.");
  return step;
}

/** The next step is taken in hand: its clock runs from here. */
export async function startStep(
  ctx: ServerContext,
  view: PanelView,
  o: { planId: string; index: number; by: string; clientKey?: string | null },
): Promise<string> {
  const plan = planInForce(view, o.planId);
  nextStep(view, plan, o.index);
  const { working } = view.state;
  if (working?.body.index === o.index) return working.id;
  return recordEntry(ctx, {
    panelId: view.panel.id,
    kind: "stepStart",
    by: o.by,
    clientKey: o.clientKey ?? null,
    body: { planId: plan.id, index: o.index },
  });
}

export interface StepDone {
  planId: string;
  index: number;
  note: string;
  by: string;
  clientKey: string | null;
  /** Film at one mark before and after, as read. */
  measured?: BodyOf<"step">["measured"];
  gloss60_GU?: number | null;
  /** Read with a stand-in. */
  simulated?: boolean;
}

/** Ticks the next step of the plan in force; what it took off, weighed with what was read at a mark, comes off the film until somebody measures again. */
export async function completeStep(ctx: ServerContext, view: PanelView, input: StepDone): Promise<string> {
  const plan = planInForce(view, input.planId);
  const { name, removal_m, u_m, zone } = nextStep(view, plan, input.index);
  const { working } = view.state;
  const measured = input.measured ?? null;
  const films = (list: readonly { thickness_m: number }[]) => list.map((r) => r.thickness_m);
  const taken = measured
    ? weighMeasured({ removal_m, u_m }, removalAtMark(films(measured.before), films(measured.after)))
    : { removal_m, u_m };
  return recordEntry(ctx, {
    panelId: view.panel.id,
    kind: "step",
    by: input.by,
    clientKey: input.clientKey,
    simulated: input.simulated ?? false,
    body: {
      planId: plan.id,
      index: input.index,
      name,
      zone,
      ...taken,
      forecast_m: removal_m,
      note: input.note,
      measured,
      gloss60_GU: input.gloss60_GU ?? null,
      duration_s: working ? Math.min(86400, Math.max(0, (ctx.now_ms() - working.at_ms) / 1000)) : null,
    },
  });
}

/** One pass more of the step ticked last: scratches of the step before were still there. Its film comes off as well. */
export async function passAgain(ctx: ServerContext, view: PanelView, o: { planId: string; by: string }): Promise<string> {
  const plan = planInForce(view, o.planId);
  const index = view.state.stepsDone.length - 1;
  const step = plan.body.steps[index];
  if (!step?.use) throw new Refusal(null, "There is no sanding or polishing step to go over again");
  const { removal_m, u_m } = onePass(step.use, view.shopRemoval);
  return recordEntry(ctx, {
    panelId: view.panel.id,
    kind: "step",
    by: o.by,
    body: { planId: plan.id, index, name: `${step.name}, once more`, zone: step.zone, removal_m, u_m, note: "", extra: true },
  });
}

/** Colour on the cloth: the clear is through, and the plan stops here. */
export function stopThrough(ctx: ServerContext, view: PanelView, o: { note: string; by: string }): Promise<string> {
  return recordEntry(ctx, { panelId: view.panel.id, kind: "throughClear", by: o.by, body: { note: o.note } });
}
