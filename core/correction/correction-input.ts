import type { AssessInput } from "../film/assess-panel";
import { FilmField } from "../film/film-field";
import type { FilmInput } from "../film/panel-film";
import { CUT_GUARD_M, LEAST_SPOTS } from "../film/verdict";
import { type PanelBrief, type PanelState, SUBSTRATES, measuredRuns } from "../ledger/derive-panel";
import type { PlanStep } from "../ledger/bodies";
import { type ShopRemoval, clearingPlan } from "./clearing";
import { FLOW } from "../flow/constants";
import { requireNumber } from "../guard";
import type { Finish } from "../ways/house-ways";
import { type Removal, type Texture, peakToValleyFromRms } from "./removal-plan";
import { RUN_SCHOOLS, type RunForecast, type RunSchool, forecastRunWork } from "./run-work";
import { correctionSchool, stepName } from "./schools";

/** Texture of a sprayed panel nobody has measured: 3 ± 0.4 µm peak to valley, judged. Default of ours. */
export const JUDGED_TEXTURE = { peakToValley_m: 3e-6, u_m: 0.4e-6 } as const;

export interface CorrectionChoice {
  schoolId: string;
  runSchool: RunSchool | null;
  texture: Texture;
  tape_m: number;
  floor_m: number;
  /** This shop's own removal, where it has been taken over. */
  shop?: ShopRemoval | null;
}

/** Peel measured or judged on the panel, the worst of it; otherwise the usual texture. */
export function textureOf(state: PanelState): { texture: Texture; from: "measured" | "judged" | "usual" } {
  const peel = state.defects
    .filter((d) => d.body.kind === "peel" && d.body.height_m !== null)
    .sort((a, b) => b.body.height_m! - a.body.height_m!)[0];
  if (!peel) return { texture: { ...JUDGED_TEXTURE }, from: "usual" };
  const peakToValley_m = peel.body.height_m!;
  return {
    texture: { peakToValley_m, u_m: peakToValley_m * (peel.body.measured ? 0.12 : 0.25) },
    from: peel.body.measured ? "measured" : "judged",
  };
}

/** Peak to valley that a rating by eye on the scale 1 … 5 stands for. @throws RangeError outside 1 … 5 */
export function peakToValleyOfRating(rating: number): number {
  const r = requireNumber("rating", rating, { min: 1, max: 5 });
  return peakToValleyFromRms(FLOW.textureUnit_m * FLOW.textureStep ** (r - 1)).peakToValley_m;
}

/** Texture that the finish asks for: none for show flat, the neighbour's as rated where it has to match, else a usual one. */
export function wantedTexture(
  state: Pick<PanelState, "texture">,
  finish: Finish,
): { peakToValley_m: number; from: "flat" | "rated" | "usual" } {
  if (finish === "flat") return { peakToValley_m: 0, from: "flat" };
  const target = finish === "match" ? state.texture.findLast((t) => t.body.role === "target") : undefined;
  return target
    ? { peakToValley_m: peakToValleyOfRating(target.body.rating), from: "rated" }
    : { peakToValley_m: JUDGED_TEXTURE.peakToValley_m, from: "usual" };
}

/** The four run schools for the panel's worst run, side by side; null when there is no run with its size or no clear to work on. */
export function compareRunSchools(
  brief: PanelBrief,
  state: PanelState,
  floor_m: number,
): { height_m: number; clear_m: number; u_clear_m: number; schools: (RunForecast & { school: RunSchool; cutChance: number })[] } | null {
  const [run] = measuredRuns(state).sort((a, b) => b.height_m - a.height_m);
  const around = run && clearAround(brief, state, [run.entry.body.at.x_m, run.entry.body.at.y_m]);
  if (!run || !around) return null;
  const schools = (Object.keys(RUN_SCHOOLS) as RunSchool[]).map((school) => {
    const size = { height_m: run.height_m, width_m: run.width_m, length_m: run.length_m, ...around };
    return {
      school,
      ...forecastRunWork(school, { ...size, floor_m }),
      cutChance: forecastRunWork(school, { ...size, floor_m: CUT_GUARD_M }).chanceBelowFloor,
    };
  });
  return { height_m: run.height_m, ...around, schools };
}

/** Clear beside a place: from the field when there are before-readings, else the mean of what the spots say. */
function clearAround(brief: PanelBrief, state: PanelState, at: readonly [number, number]): { clear_m: number; u_clear_m: number } | null {
  const after = state.observations.filter((o) => o.layer === "after").length;
  if (state.hasBefore && after >= LEAST_SPOTS) {
    const { mean_m, sd_m } = new FilmField(
      state.observations,
      brief.shape.outline,
      { sameGaugeCorrelation: state.sessions.correlation, relocation_m: state.sessions.relocation_m },
      { bodyLines: brief.shape.bodyLines },
    ).predict([at]);
    return { clear_m: mean_m[0]!, u_clear_m: sd_m[0]! };
  }
  const clears = state.spots.flatMap((s) => (s.clear ? [s.clear] : []));
  if (clears.length === 0) return null;
  return { clear_m: clears.reduce((a, c) => a + c.clear_m, 0) / clears.length, u_clear_m: Math.max(...clears.map((c) => c.u_m)) };
}

/** Everything about the panel's film but the question put to it: outline, body lines, readings, history and sessions. */
export function filmSetting(
  brief: PanelBrief,
  state: PanelState,
): Pick<FilmInput, "outline" | "bodyLines" | "observations" | "history" | "sameGaugeCorrelation" | "relocation_m"> {
  return {
    outline: brief.shape.outline,
    bodyLines: brief.shape.bodyLines,
    observations: state.observations,
    history: { weights: SUBSTRATES[brief.substrate].weights, sprayed: state.predictedClear ?? undefined, known: state.knownUnder },
    sameGaugeCorrelation: state.sessions.correlation,
    relocation_m: state.sessions.relocation_m,
  };
}

/**
 * What a choice of schools means for this panel: the steps with their removal, the input of the assessment and the run's share of it.
 * One function for the page, the stored plan and the tests.
 * @throws RangeError for an unknown school or figures outside the models
 */
export function correctionInput(
  brief: PanelBrief,
  state: PanelState,
  choice: CorrectionChoice,
): { steps: PlanStep[]; total: Removal; assess: AssessInput; runs: ReturnType<typeof compareRunSchools> } {
  const school = correctionSchool(choice.schoolId);
  const uses = school.steps.map((s) => s.use);
  const { steps, total } = clearingPlan(uses, choice.texture, choice.shop);
  const runs = compareRunSchools(brief, state, choice.floor_m);
  const run = runs?.schools.find((s) => s.school === choice.runSchool) ?? null;
  const ladder = uses.map((use, i): PlanStep => ({
    name: stepName(use),
    use,
    removal_m: steps[i]!.removal_m,
    u_m: steps[i]!.u_m,
    passes: steps[i]!.passes,
  }));
  // The run is worked first and only where it hangs: it does not thin the panel, so its step takes nothing off the panel's film.
  const first: PlanStep[] = run
    ? [{ name: `Run: ${RUN_SCHOOLS[run.school].name.toLowerCase()}`, use: null, removal_m: 0, u_m: 0, passes: 1 }]
    : [];
  return {
    steps: [...first, ...ladder],
    total,
    runs,
    assess: {
      ...filmSetting(brief, state),
      removal_m: total.removal_m,
      u_removal_m: total.u_m,
      floor_m: choice.floor_m,
      tape_m: choice.tape_m,
      runCutChance: run?.cutChance ?? 0,
    },
  };
}
