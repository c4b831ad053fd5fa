import type { ServerContext } from "../context";
import {
  type BoothPlanBody,
  type BoothRules,
  boothPlanBody,
  getBoothPlan,
  putBoothPlan,
  rulesVersion,
  setPromisedEnd,
} from "../repos/booth-plan-repo";
import { loadBoothPlan } from "../views/booth-plan-view";
import { Refusal, refuseOther } from "./refusal";
import { run } from "./run";

const OTHER_WINDOW = "The plan was changed in another window meanwhile. Nothing was overwritten; look again.";

/** A plan that is stored; when its last coat will be on is worked out after that, and stored with it unless other rules were set by then. */
export interface PlanSet {
  promised: Promise<void>;
}

/**
 * Sets the day's plan: parts, rules, start. Times fixed by hand stay where their part is still in it.
 * @param expected the rules that the form was filled in on
 * @throws ChangedMeanwhile where another window has set other rules since
 */
export async function saveBoothPlan(ctx: ServerContext, input: BoothRules, expected: string | null): Promise<PlanSet> {
  const old = await getBoothPlan(ctx.db);
  if (old) refuseOther(expected, old.body, rulesVersion(old.body));
  const kept = (old?.body.fixed ?? []).filter((f) => input.parts.some((p) => p.panelId === f.panelId));
  return putWithPromise(ctx, { ...input, fixed: kept, promisedEnd_ms: null }, old?.version ?? 0);
}

/** Fixes one coat at a time, or lets it go again. */
export async function fixCoat(
  ctx: ServerContext,
  { panelId, coat, start_ms, version }: { panelId: string; coat: number; start_ms: number | null; version: number },
): Promise<void> {
  const old = await getBoothPlan(ctx.db);
  if (!old) throw new Refusal(null, "There is no plan yet");
  const others = old.body.fixed.filter((f) => f.panelId !== panelId || f.coat !== coat);
  await put(ctx, { ...old.body, fixed: start_ms === null ? others : [...others, { panelId, coat, start_ms }] }, version);
}

/** Plans what is left again from now on, without the times fixed by hand; later delays are told against this plan. */
export async function replanFromNow(ctx: ServerContext, version: number): Promise<PlanSet> {
  const old = await getBoothPlan(ctx.db);
  if (!old) throw new Refusal(null, "There is no plan yet");
  return putWithPromise(ctx, { ...old.body, start_ms: ctx.now_ms(), fixed: [], promisedEnd_ms: null }, version);
}

async function put(ctx: ServerContext, body: BoothPlanBody, version: number): Promise<void> {
  const checked = boothPlanBody.parse(body);
  await run(ctx, null, async ({ db, now_ms, tell }) => {
    if (!(await putBoothPlan(db, checked, version, now_ms))) throw new Refusal(null, OTHER_WINDOW);
    tell({ topic: "shop", id: "booth-plan" });
  });
}

/** Many parts take seconds to plan: the form does not wait for it, and a delay is told once there is something to tell it against. */
async function putWithPromise(ctx: ServerContext, given: BoothPlanBody, version: number): Promise<PlanSet> {
  const body = boothPlanBody.parse(given);
  await put(ctx, body, version);
  const promise = async () => {
    const { problem, origin_ms } = await loadBoothPlan(ctx, null, body);
    const answer = problem.parts.length > 0 ? await ctx.inThread("planBooth", problem) : null;
    if (answer?.kind !== "planned") return;
    const promisedEnd_ms = Math.round(origin_ms + answer.plan.end_s * 1000);
    await run(ctx, null, async ({ db, tell }) => {
      const now = await getBoothPlan(db);
      if (!now || rulesVersion(now.body) !== rulesVersion(body)) return;
      await setPromisedEnd(db, { ...now.body, promisedEnd_ms });
      tell({ topic: "shop", id: "booth-plan" });
    });
  };
  // Other rules by then have a promise of their own; where the server was stopped none is told.
  return { promised: promise().catch(() => undefined) };
}
