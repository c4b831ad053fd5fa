import type { ZonePlan } from "#core/judge/zone-plan";
import type { ZoneChoice } from "#core/judge/zone-setting";
import { onePass } from "#core/models/correction/clearing";
import { weighMeasured } from "#core/models/correction/measured-step";
import { readAtMark } from "#core/panel/read-marks";
import type { BodyInputOf } from "#core/record/bodies";
import type { EntryOf } from "#core/record/entry";
import { planBody } from "#core/judge/plan-for";
import { faultsHolding, workedAt } from "#core/panel/fault-holds";
import { blockedBy, blockedVerdict } from "#core/judge/blocked-by";
import { filmOf } from "#core/course/cure-status";
import type { ServerContext } from "../context";
import { type PanelView, loadPanelView } from "../views/panel-view";
import { LedgerMoved, entryBefore, recordEntry } from "./record-entry";
import { Refusal } from "./refusal";

/** So often a command is worked out again when entries keep coming in between. */
const MOST_TRIES = 5;

/**
 * Carries out a command on the panel as it is now, not as a window showed it: worked out on the ledger's newest state, stored only while that
 * stands, else worked out again.
 */
async function onNewest(ctx: ServerContext, seen: PanelView, command: (view: PanelView) => Promise<string>): Promise<string> {
  for (let tries = 1; ; tries++) {
    const view = await loadPanelView(ctx, seen.job.id, seen.panel.id);
    if (!view) throw new Refusal(null, "This panel is no longer there", 404);
    try {
      return await command(view);
    } catch (error) {
      if (!(error instanceof LedgerMoved) || tries >= MOST_TRIES) throw error;
    }
  }
}

const PROBLEMS: Record<NonNullable<ZonePlan["problem"]>, string> = {
  "no place": "Nothing is marked to work at: look it over, and mark what you see under Inspect.",
  "nothing marked": "No area is marked on this panel. Draw where it is under Inspect, or level a half of it.",
};

/** Stores a plan with the verdict worked out here, beside the thread that answers requests, from the panel's readings at this moment. */
export async function storePlan(
  ctx: ServerContext,
  seen: PanelView,
  input: { choice: Omit<ZoneChoice, "floor_m" | "shop" | "habits">; by: string; clientKey: string | null },
): Promise<string> {
  const again = await entryBefore(ctx, seen.panel.id, input.clientKey, input.choice);
  if (again) return again;
  return onNewest(ctx, seen, async (view) => {
    const choice = { ...input.choice, floor_m: view.floor_m, habits: view.job.way.bench, shop: view.shopRemoval };
    const { plan, assessment: judged } = await ctx.inThread("judgedPlan", {
      brief: view.panel,
      state: view.state,
      choice,
      remedies: false,
    });
    if (plan.problem) throw new Refusal(null, PROBLEMS[plan.problem]);
    if (judged.verdict === "none") throw new Refusal(null, judged.reason ?? "Too few readings for a verdict");
    return recordEntry(ctx, {
      panelId: view.panel.id,
      kind: "plan",
      by: input.by,
      clientKey: input.clientKey,
      asked: input.choice,
      expectedVersion: view.expectedVersion,
      body: planBody(choice, plan, {
        ...judged,
        // Never *safe* on matte, before it is hard, nor over what has to be seen to first.
        verdict: blockedVerdict(
          judged.verdict,
          blockedBy({
            finish: view.job.finish,
            cured: filmOf(view, ctx.now_ms()).cured,
            account: view.state,
            faults: faultsHolding(view.state, "paper", workedAt(plan)),
          }),
        ),
      }),
    });
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
  seen: PanelView,
  o: { planId: string; index: number; by: string; clientKey?: string | null },
): Promise<string> {
  const asked = { start: o.planId, index: o.index };
  const again = await entryBefore(ctx, seen.panel.id, o.clientKey ?? null, asked);
  if (again) return again;
  return onNewest(ctx, seen, async (view) => {
    const plan = planInForce(view, o.planId);
    nextStep(view, plan, o.index);
    const { working } = view.state;
    if (working?.body.index === o.index) return working.id;
    return recordEntry(ctx, {
      panelId: view.panel.id,
      kind: "stepStart",
      by: o.by,
      clientKey: o.clientKey ?? null,
      asked,
      expectedVersion: view.expectedVersion,
      body: { planId: plan.id, index: o.index },
    });
  });
}

export interface StepDone {
  planId: string;
  index: number;
  note: string;
  by: string;
  clientKey: string | null;
  /** Film at one mark before and after, as read. */
  measured?: BodyInputOf<"step">["measured"];
  gloss60_GU?: number | null;
  /** Read with a stand-in. */
  simulated?: boolean;
}

/** Ticks the next step of the plan in force; what it took off, weighed with what was read at a mark, comes off the film until somebody measures again. */
export async function completeStep(ctx: ServerContext, seen: PanelView, input: StepDone): Promise<string> {
  const { clientKey, by, ...asked } = input;
  const again = await entryBefore(ctx, seen.panel.id, clientKey, asked);
  if (again) return again;
  return onNewest(ctx, seen, async (view) => {
    const plan = planInForce(view, input.planId);
    const { name, removal_m, u_m, zone } = nextStep(view, plan, input.index);
    const { working } = view.state;
    const measured = input.measured ?? null;
    const taken = measured ? weighMeasured({ removal_m, u_m }, readAtMark(measured)) : { removal_m, u_m };
    return recordEntry(ctx, {
      panelId: view.panel.id,
      kind: "step",
      by,
      clientKey,
      asked,
      expectedVersion: view.expectedVersion,
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
  });
}

/** One pass more of the step ticked last: scratches of the step before were still there. Its film comes off as well. */
export function passAgain(ctx: ServerContext, seen: PanelView, o: { planId: string; by: string }): Promise<string> {
  return onNewest(ctx, seen, (view) => {
    const plan = planInForce(view, o.planId);
    const index = view.state.stepsDone.length - 1;
    const step = plan.body.steps[index];
    if (!step?.use) throw new Refusal(null, "There is no sanding or polishing step to go over again");
    const { removal_m, u_m } = onePass(step.use, view.shopRemoval);
    return recordEntry(ctx, {
      panelId: view.panel.id,
      kind: "step",
      by: o.by,
      expectedVersion: view.expectedVersion,
      body: { planId: plan.id, index, name: `${step.name}, once more`, zone: step.zone, removal_m, u_m, note: "", extra: true },
    });
  });
}

/** Colour on the cloth: the clear is through, and the plan stops here. */
export function stopThrough(ctx: ServerContext, view: PanelView, o: { note: string; by: string }): Promise<string> {
  return recordEntry(ctx, { panelId: view.panel.id, kind: "throughClear", by: o.by, body: { note: o.note } });
}
