import { stepPrior } from "#core/models/correction/clearing";
import { type LearntStep, learnRemovalFactor, learnSteps } from "#core/models/correction/learn-removal";
import { type Learnt, learnFilm, learnRuns, learnTexture } from "#core/models/flow/shop-calibration";
import { simulateCoats } from "#core/models/flow/simulate-coats";
import type { ServerContext } from "../context";
import type { ShopSettings } from "../repos/shop-repo";
import { listLessons } from "../repos/summary-repo";
import type { Lesson } from "../summary/panel-summary";

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

/** What this shop's own panels say of the model: film measured against predicted, which of them ran, what came off. Newest panels last. */
export async function loadLearnt(ctx: ServerContext): Promise<LearntView> {
  const lessons = (await listLessons(ctx.db, PANELS_MOST)).reverse();
  const flows = lessons.flatMap((l) => (l.flow ? [{ key: l.key, ...l.flow }] : []));
  return {
    film: learnFilm(lessons.flatMap((l) => (l.film ? [l.film] : []))),
    runs: runsOf(
      ctx,
      flows.filter((f) => f.sag_m > 0),
    ),
    texture: learnTexture(flows.flatMap((f) => (f.texture ? [f.texture] : []))),
    removal: learnRemovalFactor(lessons.flatMap((l) => (l.worked ? [l.worked] : []))),
    steps: learnSteps(
      lessons.flatMap((l) => l.steps),
      stepPrior,
    ),
    simulated: lessons.filter((l) => l.film && l.simulated).length,
  };
}

type LoggedFlow = NonNullable<Lesson["flow"]> & { key: string };

/** Sag is only nearly proportional to the factor: it is simulated again with what was learnt, three times. */
const ROUNDS = 3;
function runsOf(ctx: ServerContext, sprayed: readonly LoggedFlow[]): Learnt {
  let learnt = learnRuns(sprayed.map((s) => ({ sag_m: s.sag_m, ran: s.ran })));
  for (let round = 0; round < ROUNDS && learnt.enough; round++) {
    const { factor } = learnt;
    learnt = learnRuns(sprayed.map((s) => ({ sag_m: sagAt(ctx, s, factor) / factor, ran: s.ran })));
  }
  return learnt;
}

/** A panel's sag with the shop's levelling, remembered: a simulation takes milliseconds, and a page has sixty. */
function sagAt({ sagMemo }: ServerContext, { key, conditions, coats }: LoggedFlow, levelling: number): number {
  const of = `${key} ${levelling.toPrecision(12)}`;
  const known = sagMemo.get(of);
  if (known !== undefined) return known;
  const sag_m = simulateCoats(conditions, coats, { shop: { film: 1, levelling, noise: 1 } }).sagLocal_m;
  sagMemo.set(of, sag_m);
  return sag_m;
}

/** Learnt steps as the shop keeps them: those with pairs enough. A figure that is not above zero says nothing to plan with. */
export const stepsToTakeOver = (steps: readonly LearntStep[]): ShopSettings["learntSteps"] =>
  Object.fromEntries(steps.filter((s) => s.enough && s.mean_m > 0).map((s) => [s.key, { removal_m: s.mean_m, u_m: s.sd_m, n: s.n }]));
