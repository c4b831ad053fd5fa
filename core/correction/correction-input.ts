import type { AssessInput } from "../film/assess-panel";
import type { FilmInput } from "../film/panel-film";
import { FLOW } from "../flow/constants";
import { requireNumber } from "../guard";
import type { PlanStep } from "../ledger/bodies";
import { type PanelBrief, type PanelState, SUBSTRATES } from "../ledger/derive-panel";
import type { Finish } from "../ways/house-ways";
import { type Removal, type Texture, peakToValleyFromRms } from "./removal-plan";
import { type ZoneChoice, type ZonePlan, zonePlan } from "./zone-plan";

/** Texture of a sprayed panel nobody has measured: 3 ± 0.4 µm peak to valley, judged. Default of ours. */
export const JUDGED_TEXTURE = { peakToValley_m: 3e-6, u_m: 0.4e-6 } as const;

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
 * What a choice of schools means for this panel: its zones and steps, and the input of the assessment with what is worked apart from the
 * flat. One function for the page, the stored plan and the tests.
 * @throws RangeError for an unknown school or figures outside the models
 */
export function correctionInput(brief: PanelBrief, state: PanelState, choice: ZoneChoice): { plan: ZonePlan; assess: AssessInput } {
  const plan = zonePlan(brief, state, choice);
  return {
    plan,
    assess: {
      ...filmSetting(brief, state),
      removal_m: plan.total.removal_m,
      u_removal_m: plan.total.u_m,
      floor_m: choice.floor_m,
      tape_m: plan.judgedFrom_m,
      byHand: plan.byHand,
      localCutChance: plan.localCutChance,
    },
  };
}

/** Steps that a forecast for the panel counts: those of the panel; of a plan for spots only, all. */
export function countedSteps<S extends Pick<PlanStep, "zone">>(steps: readonly S[], from = 0): S[] {
  const onPanel = steps.some((s) => s.zone === "panel");
  return steps.slice(from).filter((s) => s.zone === "panel" || !onPanel);
}

/** What is still to come of the plan in force, and the input of its assessment from here; null with no plan or nothing left. */
export function assessFromHere(brief: PanelBrief, state: PanelState): { removal: Removal; assess: AssessInput } | null {
  const { plan, stepsDone, removedSince } = state;
  if (!plan || stepsDone.length >= plan.body.steps.length) return null;
  const { steps, tape_m, judgedFrom_m, byHand, floor_m, localCutChance } = plan.body;
  const ahead = countedSteps(steps, stepsDone.length);
  const removal = {
    removal_m: ahead.reduce((a, s) => a + s.removal_m, 0),
    // What was taken off since the last reading is in the film already; its doubt is not.
    u_m: Math.hypot(removedSince.u_m, ...ahead.map((s) => s.u_m)),
  };
  return {
    removal,
    assess: {
      ...filmSetting(brief, state),
      removal_m: removal.removal_m,
      u_removal_m: removal.u_m,
      floor_m,
      tape_m: judgedFrom_m ?? tape_m,
      byHand,
      localCutChance,
    },
  };
}
