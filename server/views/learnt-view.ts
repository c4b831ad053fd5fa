import { learnRemovalFactor } from "#core/correction/learn-removal";
import { removedAtSpots } from "#core/ledger/clear-summary";
import { type PanelState, derivePanel } from "#core/ledger/derive-panel";
import { type Learnt, learnFilm, learnRuns, learnTexture } from "#core/flow/shop-calibration";
import { loggedSetting } from "#core/flow/logged-setting";
import { simulateCoats } from "#core/flow/simulate-coats";
import type { ServerContext } from "../context";
import { countByPanel, listEntries } from "../repos/ledger-repo";
import { getPanel } from "../repos/panel-repo";
import { getProductRevision } from "../repos/product-repo";

/** So many of the newest panels are looked at. */
const PANELS_MOST = 60;

export interface LearntView {
  film: Learnt;
  runs: Learnt;
  texture: Learnt;
  removal: Learnt;
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
  const worked: Parameters<typeof learnRemovalFactor>[0][number][] = [];
  const texture: { rated: number; predicted: number }[] = [];
  let simulated = 0;
  for (const { panelId } of counted) {
    const panel = await getPanel(ctx.db, panelId);
    const product = panel && (await getProductRevision(ctx.db, panel.productRevisionId));
    if (!panel || !product) continue;
    const state = derivePanel(panel, product.sheet, await listEntries(ctx.db, panelId));
    const clears = state.spots.flatMap(({ films }) =>
      films.before && films.after ? [films.after.film.mean_m - films.before.film.mean_m] : [],
    );
    const measured_m = clears.reduce((a, c) => a + c, 0) / clears.length;
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
  return { film: learnFilm(film), runs: runsOf(sprayed), texture: learnTexture(texture), removal: learnRemovalFactor(worked), simulated };
}

/** What came off a panel read before and after its work, beside what its plan forecast; null when either is missing or the work is not done. */
function workedPair(state: PanelState) {
  const spots = removedAtSpots(state);
  const { plan, stepsDone, extraPasses } = state;
  if (!plan || spots.length === 0 || stepsDone.length < plan.body.steps.length || !(plan.body.removal_m > 0)) return null;
  return {
    measured_m: spots.reduce((a, s) => a + s.removal_m, 0) / spots.length,
    u_m: Math.hypot(...spots.map((s) => s.u_m)) / spots.length,
    forecast_m: plan.body.removal_m + extraPasses.reduce((a, e) => a + e.body.removal_m, 0),
    uForecast_m: plan.body.u_removal_m,
  };
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
