import type { PanelBrief } from "../panel/brief";
import type { JobBrief } from "../panel/job-brief";
import type { ReleaseInput } from "./release-check";
import { filmFacts } from "./film-question";
import { leftTexture, textureOf } from "./texture";
import { type ShopRemoval, clearingPlan } from "../models/correction/clearing";
import type { Removal, Texture } from "../models/correction/removal-plan";
import { schoolWith } from "../models/correction/bench-habits";
import { correctionSchool, reachOf } from "../models/correction/schools";
import type { HouseWay } from "../models/ways/way";
import type { Finish } from "../models/ways/terms";
import type { PanelState } from "./account";
import { DEFAULT_TAPE_M } from "./limits";
import type { OptionInput } from "./option-case";
import { type FlowAsked, type FlowPlan, flowPlanOf } from "./flow-question";
import type { ShopRates } from "./option-figures";
import type { CurePhase } from "../models/defects/remedies";
import type { FlowCase } from "./options";
import type { MapInput } from "./panel-map";
import type { ZoneChoice } from "./zone-setting";

/** What the pages of a panel ask the judge from: all that a view holds of it. */
export interface JudgeContext {
  panel: PanelBrief;
  state: PanelState;
  job: { way: HouseWay; finish: Finish };
  floor_m: number;
  shopRemoval: ShopRemoval;
}

/** What the house way's own ladder takes off where it works: a school for spots, and one that only polishes, levels no peel. */
export function usualRemoval(asked: JudgeContext): Removal {
  const school = schoolWith(correctionSchool(asked.job.way.correction), asked.job.way.bench);
  const uses = school.steps.map((s) => s.use);
  return clearingPlan(uses, reachOf(school) === "panel" ? textureAsked(asked) : undefined, asked.shopRemoval).total;
}

/** The film map's question: for the house way's ladder, the rim left out. */
export function mapQuestion(asked: JudgeContext): MapInput {
  const usual = usualRemoval(asked);
  return {
    film: filmFacts(asked.panel, asked.state),
    hypotheses: asked.state.film.hypotheses,
    removal_m: usual.removal_m,
    uRel: usual.u_m / usual.removal_m,
    rim_m: DEFAULT_TAPE_M,
    floor_m: asked.floor_m,
  };
}

/** Peel that is there, and what of it the job's brief leaves. */
export function textureAsked({ state, job }: Pick<JudgeContext, "state" | "job">): Texture & { wanted_m: number } {
  const { texture } = textureOf(state);
  return { ...texture, wanted_m: leftTexture(state, job.finish, texture) };
}

/** The plan that Correct opens with, unless another is asked for. */
export const usualChoice = (asked: JudgeContext): ZoneChoice => ({
  schoolId: asked.job.way.correction,
  runSchool: asked.job.way.runSchool,
  habits: asked.job.way.bench,
  texture: textureAsked(asked),
  tape_m: DEFAULT_TAPE_M,
  floor_m: asked.floor_m,
  shop: asked.shopRemoval,
});

const flowCase = (plan: FlowPlan | null): FlowCase | null =>
  plan && {
    ...plan.flat,
    adds_m: plan.stage.adds_m,
    uAdds_m: Math.sqrt(Math.max(0, plan.stage.u_clear_m ** 2 - plan.there.u_m ** 2 - plan.flat.u_m ** 2)),
    runs: plan.stage.against === "runs",
  };

/** The question whether a panel goes out. @param film how far its clear is, and @param others_GU gloss of the job's other panels */
export const outQuestion = (
  asked: Pick<JudgeContext, "panel" | "state" | "floor_m"> & { job: { finish: Finish; brief: Pick<JobBrief, "targetGloss_GU"> } },
  { film, others_GU }: { film: { cured: number; left_s: number }; others_GU: readonly number[] },
): ReleaseInput => ({
  brief: asked.panel,
  state: asked.state,
  finish: asked.job.finish,
  targetGloss_GU: asked.job.brief.targetGloss_GU,
  floor_m: asked.floor_m,
  cured: { share: film.cured, left_s: film.left_s },
  others_GU,
});

/** The question of the options page. @param cured share of the cure reached, and @param phase what may be done with the clear now */
export const optionQuestion = (
  asked: JudgeContext & FlowAsked,
  { cured, phase, left_s, rates }: { cured: number; phase?: CurePhase; left_s?: number; rates: ShopRates },
): OptionInput => ({
  flow: flowCase(flowPlanOf(asked)),
  brief: asked.panel,
  state: asked.state,
  finish: asked.job.finish,
  floor_m: asked.floor_m,
  schoolId: asked.job.way.correction,
  habits: asked.job.way.bench,
  cured,
  ...(phase ? { phase } : {}),
  ...(left_s === undefined ? {} : { waiting: { left_s, sandAfter_s: asked.product.sheet.sandAfter_s } }),
  rates,
  shop: asked.shopRemoval,
});
