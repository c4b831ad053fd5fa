import { inRange } from "#core/kernel/guard";
import { remember } from "#core/kernel/remember";
import { removedAtSpots } from "#core/panel/removed-at-spots";
import { abrasiveKey } from "#core/models/correction/clearing";
import type { StepPair, WorkedPair } from "#core/models/correction/learn-removal";
import { readAtMark, tellsOfPaper } from "#core/panel/read-marks";
import { loggedSetting } from "#core/coat/setting";
import type { FlowSetting } from "#core/models/flow/flow-window";
import { TEXTURE_LIMITS } from "#core/models/flow/constants";
import { flowVerdict } from "#core/models/flow/flow-advice";
import { type ShopFactors, simulateCoats } from "#core/models/flow/simulate-coats";
import { type CourseClock, clocksOf } from "#core/course/clocks";
import { type PotClock, potClocksOf } from "#core/course/pot-clocks";
import type { CourseInput } from "#core/course/course";
import type { BodyOf } from "#core/record/bodies";
import { workedOut } from "#core/panel/in-the-way";
import { isLookedOver } from "#core/panel/looked";
import { thinsPanel } from "#core/panel/thins-panel";
import { type PanelFacts, derivePanel } from "#core/panel/derive-panel";
import { type LedgerEntry, ofKind, ownEntries } from "#core/record/entry";
import { livingEntries } from "#core/record/timeline";
import { type SprayedPanel, resultOf } from "#core/panel/next-time";
import { type Standing, standingOf } from "#core/course/standing";
import type { HouseWay } from "#core/models/ways/way";
import type { Finish } from "#core/models/ways/terms";
import type { Panel } from "../repos/panel-repo";
import type { Product } from "../repos/product-repo";

/** Rises with any change of what is derived here: a file's rows of an older version are made anew when it is opened. */
export const SUMMARY_VERSION = 13;

/** Settings of a last coat on a panel that came out without a run or peel. */
export interface Worked {
  entryId: string;
  product: string;
  air_K: number | null;
  settings: BodyOf<"coat">["settings"];
}
/** What a panel says of the models: film, runs, texture, removal. */
export interface Lesson {
  film: { measured_m: number; predicted_m: number } | null;
  flow:
    | (Pick<FlowSetting, "conditions" | "coats"> & { sag_m: number; ran: boolean; texture: { rated: number; predicted: number } | null })
    | null;
  worked: WorkedPair | null;
  steps: StepPair[];
  simulated: boolean;
}
export interface PanelSummary {
  standing: Standing;
  clocks: CourseClock[];
  potClocks: PotClock[];
  /** Coats are still to come. */
  unfinished: boolean;
  lastCoat_ms: number | null;
  /** What the booth's plan offers it with; null once its coats are on. */
  booth: { product: string; coatsPlanned: number; coats: number } | null;
  /** Without its names: those may change, and are read where it is shown. */
  sprayed: Omit<SprayedPanel, "panelId" | "what"> | null;
  worked: Worked | null;
  lesson: Lesson | null;
  causeWords: { entryId: string; kind: string; causeId: string }[];
}

/** What of a panel's job its course goes by. */
export interface JobWay {
  way: HouseWay;
  finish: Finish;
}
/** The question of a panel's course. */
export const courseAsked = (
  panel: Panel,
  product: Product,
  job: JobWay,
  facts: PanelFacts,
  shop?: ShopFactors,
): Omit<CourseInput, "now_ms"> => ({
  brief: panel,
  sheet: product.sheet,
  way: job.way,
  finish: job.finish,
  facts,
  shop,
});

/** Settings asked again with each entry of a panel whose coats are on: so many panels' are remembered. */
const SETTINGS = 200;
/** What the flow model says of settings as they were logged. */
const forecastOf = remember(SETTINGS, ({ setting, finish }: { setting: Pick<FlowSetting, "conditions" | "coats">; finish: Finish }) => {
  const { result, peelChance } = flowVerdict(setting, TEXTURE_LIMITS[finish]);
  return { sagLocal_m: result.sagLocal_m, peelChance };
});
/** The same without anything this shop has learnt. */
const flowOf = remember(SETTINGS, ({ conditions, coats }: Pick<FlowSetting, "conditions" | "coats">) => {
  const { sagLocal_m, texture } = simulateCoats(conditions, coats, { shop: { film: 1, levelling: 1, noise: 1 } });
  return { sagLocal_m, texture };
});

/** When the newest entry was written: what a panel's row is worked out at, so that it says the same whenever it is made. */
const writtenAt = (entries: readonly LedgerEntry[]): number =>
  Math.max(0, ...ownEntries(entries).map((e) => Math.max(e.at_ms, e.recordedAt_ms)));

/** Everything that lists, clocks and learning show of a panel, from its ledger; a pure function of both. */
export function panelSummary(
  panel: Panel,
  product: Product,
  { job, shop, entries }: { job: JobWay; shop?: ShopFactors; entries: readonly LedgerEntry[] },
): PanelSummary {
  const now_ms = writtenAt(entries);
  const { value, ledger } = workedOut(entries, (kept) => {
    const state = derivePanel(panel, product.sheet, kept);
    const course = { ...courseAsked(panel, product, job, state, shop), now_ms };
    return { state, standing: standingOf(course), clocks: clocksOf(course) };
  });
  const { state, standing, clocks } = value;
  // Nothing is learnt where a logged setting lies outside the models: what was logged is stored all the same.
  const sprayed = inRange(() => sprayedOf(panel, product, state, job.finish));
  const living = livingEntries(ownEntries(ledger));
  const unfinished = state.coats.length < panel.coatsPlanned && !state.handedOver;
  return {
    standing,
    clocks,
    potClocks: potClocksOf(ofKind(ownEntries(entries), "mix")),
    unfinished,
    booth: unfinished ? { product: product.sheet.name, coatsPlanned: panel.coatsPlanned, coats: state.coats.length } : null,
    lastCoat_ms: state.coats.at(-1)?.entry.at_ms ?? null,
    sprayed,
    worked: workedOf(product, sprayed),
    lesson: inRange(() => lessonOf(panel, product, firstBuild(panel, product, state, ledger), living)),
    causeWords: state.causes.flatMap((c) => (c.body.causeId ? [{ entryId: c.id, kind: c.body.kind, causeId: c.body.causeId }] : [])),
  };
}

function sprayedOf(panel: Panel, product: Product, state: PanelFacts, finish: Finish): PanelSummary["sprayed"] {
  const last = state.coats.at(-1);
  // What came of it shows when all coats are on and somebody has looked or rated it: a panel between its coats says nothing yet, a film that was read neither.
  const rated = state.texture.some((t) => t.body.role === "part");
  if (!last || state.coats.length < panel.coatsPlanned || !(isLookedOver(state) || rated)) return null;
  // Nothing where a logged setting lies outside the model: what was logged is stored all the same.
  const forecast = inRange(() => forecastOf({ setting: loggedSetting(panel, state, product.sheet), finish }));
  return {
    at_ms: last.entry.at_ms,
    coatId: last.entry.id,
    productId: product.id,
    air_K: state.climate && last.sprayed.air_K,
    settings: last.entry.body.settings,
    reducer: last.entry.body.reducer,
    wet_m: last.predicted.wet_m,
    rating: state.texture.findLast((t) => t.body.role === "part")?.body.rating ?? null,
    defects: state.defects.map((d) => d.body.kind),
    causes: state.causes.flatMap((c) => (c.body.causeId ? [c.body.causeId] : [])),
    simulated: state.simulated,
    told: state.outcome?.body.result ?? null,
    forecast: forecast && { ...forecast },
  };
}

/** Settings of a last coat that came out well, by the one rule for it. */
function workedOf(product: Product, sprayed: PanelSummary["sprayed"]): Worked | null {
  if (!sprayed || resultOf(sprayed) !== "good") return null;
  return { entryId: sprayed.coatId, product: product.sheet.name, air_K: sprayed.air_K, settings: sprayed.settings };
}

/** Clear of the newest build as its readings have it: after less before, mean of the spots read both times; null where none was. */
function readDifference(state: PanelFacts): number | null {
  const clears = state.spots.flatMap(({ films }) =>
    films.before && films.after && !films.before.scattered && !films.after.scattered
      ? [films.after.film.mean_m - films.before.film.mean_m]
      : [],
  );
  return clears.length > 0 ? clears.reduce((a, c) => a + c, 0) / clears.length : null;
}

/** A panel as its first build left it: what its coats and its sanding teach is of one film, not of all that came on top. */
function firstBuild(panel: Panel, product: Product, state: PanelFacts, entries: readonly LedgerEntry[]): PanelFacts {
  const next = state.builds[1];
  if (!next) return state;
  return derivePanel(
    panel,
    product.sheet,
    livingEntries(entries).filter((e) => e.seq < next.from_seq),
  );
}

function lessonOf(panel: Panel, product: Product, state: PanelFacts, living: readonly LedgerEntry[]): Lesson | null {
  const measured_m = readDifference(state);
  if (state.coats.length === 0 || measured_m === null) return null;
  const usable = state.predictedClear !== null && measured_m > 0;
  return {
    film: usable ? { measured_m, predicted_m: state.predictedClear!.clear_m } : null,
    flow: usable ? flowLesson(panel, product, state) : null,
    worked: workedPair(state),
    steps: stepPairs(living),
    simulated: state.simulated,
  };
}

function flowLesson(panel: Panel, product: Product, state: PanelFacts): Lesson["flow"] {
  const { conditions, coats } = loggedSetting(panel, state, product.sheet);
  // Nothing where a logged setting lies outside the model: what was logged is stored all the same.
  const flow = inRange(() => flowOf({ conditions, coats }));
  if (!flow) return null;
  const rating = state.texture.findLast((t) => t.body.role === "part" && t.seq < firstSanded(state));
  return {
    conditions,
    coats: [...coats],
    sag_m: flow.sagLocal_m,
    ran: resultOf({ defects: state.defects.map((d) => d.body.kind), rating: null, told: state.outcome?.body.result ?? null }) === "ran",
    texture: rating ? { rated: rating.body.rating, predicted: flow.texture } : null,
  };
}

/** A rating after the first sanding step says nothing about spraying. */
const firstSanded = (state: PanelFacts) => Math.min(Infinity, ...state.stepsDone.map((s) => s.seq));

/** What came off a panel read before and after its work, beside what its plan forecast; null when either is missing or the work is not done. */
function workedPair(state: PanelFacts): WorkedPair | null {
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

/** Steps of a panel that were measured at a mark, with what their plan said of them. */
function stepPairs(entries: readonly LedgerEntry[]): StepPair[] {
  const plans = new Map(ofKind(entries, "plan").map((p) => [p.id, p.body.steps]));
  return ofKind(entries, "step").flatMap(({ body }) => {
    const step = plans.get(body.planId)?.[body.index];
    if (!body.measured || !step?.use || !tellsOfPaper(step.zone)) return [];
    const { removal_m, u_m } = readAtMark(body.measured);
    return [{ key: abrasiveKey(step.use), measured_m: removal_m, u_m, texture_m: step.texture_m, passes: step.passes }];
  });
}
