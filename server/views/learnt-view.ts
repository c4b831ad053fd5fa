import { abrasiveKey, stepPrior } from "#core/correction/clearing";
import { type LearntStep, type StepPair, learnRemovalFactor, learnSteps } from "#core/correction/learn-removal";
import { removalAtMark } from "#core/correction/measured-step";
import { removedAtSpots } from "#core/ledger/clear-summary";
import { type PanelState, derivePanel, thinsPanel } from "#core/ledger/derive-panel";
import { type LedgerEntry, livingEntries, ofKind } from "#core/ledger/entry";
import { type Learnt, learnFilm, learnRuns, learnTexture } from "#core/flow/shop-calibration";
import { loggedSetting } from "#core/flow/logged-setting";
import { simulateCoats } from "#core/flow/simulate-coats";
import type { ServerContext } from "../context";
import { countByPanel, listEntries } from "../repos/ledger-repo";
import { getPanel } from "../repos/panel-repo";
import type { ShopSettings } from "../repos/shop-repo";
import { getProductRevision } from "../repos/product-repo";

/** So many of the newest panels are looked at. */
const PANELS_MOST = 60;

export interface LearntView {
  film: Learnt;
  runs: Learnt;
  texture: Learnt;
  removal: Learnt;
  /** One pass of single steps, measured at a mark. */
  steps: LearntStep[];
  /** Of the panels used, how many were read with a stand-in. */
  simulated: number;
}

/** What this shop's own panels say of the model: film measured against predicted, and which of them ran. */
export async function loadLearnt(ctx: ServerContext): Promise<LearntView> {
  const counted = (await countByPanel(ctx.db))
    .filter((p) => p.coats > 0 && p.readings.before > 0 && p.readings.after > 0)
    .slice(-PANELS_MOST);
  const film: { measured_m: number; predicted_m: number }[] = [];
  const sprayed: { run: (levelling: number) => number; ran: boolean }[] = [];
  const measured: StepPair[] = [];
  const worked: Parameters<typeof learnRemovalFactor>[0][number][] = [];
  const texture: { rated: number; predicted: number }[] = [];
  let simulated = 0;
  for (const { panelId } of counted) {
    const panel = await getPanel(ctx.db, panelId);
    const product = panel && (await getProductRevision(ctx.db, panel.productRevisionId));
    if (!panel || !product) continue;
    const entries = livingEntries(await listEntries(ctx.db, panelId));
    const state = derivePanel(panel, product.sheet, entries);
    const clears = state.spots.flatMap(({ films }) =>
      films.before && films.after ? [films.after.film.mean_m - films.before.film.mean_m] : [],
    );
    const measured_m = clears.reduce((a, c) => a + c, 0) / clears.length;
    measured.push(...stepPairs(entries));
    const pair = workedPair(state);
    if (pair) worked.push(pair);
    if (!state.predictedClear || !(measured_m > 0)) continue;
    film.push({ measured_m, predicted_m: state.predictedClear.clear_m });
    if (state.simulated) simulated++;
    const { conditions, coats } = loggedSetting(panel, state, product.sheet);
    const simulate = (levelling: number) => simulateCoats(conditions, coats, { shop: { film: 1, levelling, noise: 1 } });
    const flow = simulate(1);
    if (flow.sagLocal_m > 0)
      sprayed.push({ run: (levelling) => simulate(levelling).sagLocal_m, ran: state.defects.some((d) => d.body.kind === "run") });
    const rating = state.texture.findLast((t) => t.body.role === "part" && t.recordedAt_ms < sandedAt_ms(state));
    if (rating) texture.push({ rated: rating.body.rating, predicted: flow.texture });
  }
  return {
    film: learnFilm(film),
    runs: runsOf(sprayed),
    texture: learnTexture(texture),
    removal: learnRemovalFactor(worked),
    steps: learnSteps(measured, stepPrior),
    simulated,
  };
}

/** What came off a panel read before and after its work, beside what its plan forecast; null when either is missing or the work is not done. */
function workedPair(state: PanelState) {
  const spots = removedAtSpots(state);
  const { plan, stepsDone, extraPasses } = state;
  if (!plan || spots.length === 0 || stepsDone.length < plan.body.steps.length) return null;
  // Against what the defaults say, not what a factor already taken over made of them; a step with its own figure is learnt by itself.
  const usual = plan.body.steps.filter((s) => s.zone === "panel" && !s.own);
  const own_m = plan.body.steps.reduce((a, s) => a + (s.zone === "panel" && s.own ? s.removal_m : 0), 0);
  const forecast_m = usual.reduce((a, s) => a + (s.default_m || s.removal_m), 0);
  if (!(forecast_m > 0)) return null;
  const extra_m = extraPasses.reduce((a, e) => a + (thinsPanel(e) ? e.body.removal_m : 0), 0);
  return {
    measured_m: spots.reduce((a, s) => a + s.removal_m, 0) / spots.length - own_m,
    u_m: Math.hypot(...spots.map((s) => s.u_m)) / spots.length,
    forecast_m: forecast_m + extra_m,
    uForecast_m: plan.body.u_removal_m,
  };
}

/**
 * Steps of a panel that were measured at a mark, with what their plan said of them. On a run or a nib there is more to take off than a pass's
 * own depth: those say nothing of the paper.
 */
function stepPairs(entries: readonly LedgerEntry[]): StepPair[] {
  const plans = new Map(ofKind(entries, "plan").map((p) => [p.id, p.body.steps]));
  return ofKind(entries, "step").flatMap(({ body }) => {
    const step = plans.get(body.planId)?.[body.index];
    if (!body.measured || !step?.use || step.zone === "run" || step.zone === "spot") return [];
    const [before, after] = [body.measured.before, body.measured.after].map((list) => list.map((r) => r.thickness_m)) as [
      number[],
      number[],
    ];
    const { removal_m, u_m } = removalAtMark(before, after);
    return [{ key: abrasiveKey(step.use), measured_m: removal_m, u_m, texture_m: step.texture_m, passes: step.passes }];
  });
}

/** A rating after the first sanding step says nothing about spraying. */
const sandedAt_ms = (state: PanelState) => Math.min(Infinity, ...state.stepsDone.map((s) => s.recordedAt_ms));

/** Sag is only nearly proportional to the factor: it is simulated again with what was learnt, three times. */
const ROUNDS = 3;
function runsOf(sprayed: readonly { run: (levelling: number) => number; ran: boolean }[]): Learnt {
  let learnt = learnRuns(sprayed.map((s) => ({ sag_m: s.run(1), ran: s.ran })));
  for (let round = 0; round < ROUNDS && learnt.enough; round++) {
    const { factor } = learnt;
    learnt = learnRuns(sprayed.map((s) => ({ sag_m: s.run(factor) / factor, ran: s.ran })));
  }
  return learnt;
}

/** Learnt steps as the shop keeps them: those with pairs enough. A figure that is not above zero says nothing to plan with. */
export const stepsToTakeOver = (steps: readonly LearntStep[]): ShopSettings["learntSteps"] =>
  Object.fromEntries(steps.filter((s) => s.enough && s.mean_m > 0).map((s) => [s.key, { removal_m: s.mean_m, u_m: s.sd_m, n: s.n }]));
