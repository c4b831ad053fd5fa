import type { PanelBrief } from "../panel/brief";
import { filmFacts } from "./film-question";
import { ifMarked } from "../models/correction/removal-on-marks";
import type { BodyInputOf, PlanStep } from "../record/bodies";
import type { RunSchool } from "../models/correction/run-work";
import type { PanelState } from "./account";
import { type AssessInput, type Assessment, assess } from "./assess";
import { type FilmJudge, MARK_PLACES } from "./film-judge";
import { type JudgeOf, freshJudge } from "./kept-judge";
import { type PlanChances, planChances } from "./plan-chances";
import { type PlanForWork, workOf } from "./work";
import { type ZonePlan, zonePlan } from "./zone-plan";
import type { ZoneChoice } from "./zone-setting";

/** The judge of a panel's film as it stands; null where nothing is read over clear. */
export const judgeOf = (brief: PanelBrief, state: PanelState, of: JudgeOf = freshJudge): FilmJudge | null =>
  state.film.hypotheses.length > 0 ? of(filmFacts(brief, state), { hypotheses: state.film.hypotheses }) : null;

/** A step over the panel that shares something unknown with others: read at a mark, it tells of them. */
const canBeMarked = (s: PlanStep): boolean => s.zone === "panel" && Object.values(s.common_m).some((part) => part > 0);

const planWork = (
  plan: Pick<ZonePlan, "byHand" | "part" | "judgedFrom_m" | "runs"> & Pick<PlanForWork, "steps">,
  choice: ZoneChoice,
  state: Pick<PanelState, "localWork">,
) =>
  workOf(
    {
      steps: plan.steps,
      byHand: plan.byHand,
      part: plan.part,
      judgedFrom_m: plan.judgedFrom_m,
      tape_m: choice.tape_m,
      floor_m: choice.floor_m,
      runSchool: plan.runs ? choice.runSchool : null,
    },
    state.localWork,
  );

/**
 * What a choice of schools means for this panel: its zones and steps, and the question to the judge about the work that it is. One function for
 * the page, the options, the stored plan and the tests.
 * @throws RangeError for an unknown school or figures outside the models
 */
export function planFor(
  brief: PanelBrief,
  state: PanelState,
  choice: ZoneChoice,
  judge: FilmJudge | null = judgeOf(brief, state),
): { plan: ZonePlan; assess: AssessInput } {
  const read = judge && ((places: Parameters<FilmJudge["at"]>[0]) => judge.at(places));
  const plan = zonePlan(brief, state, choice, read);
  const marked = plan.steps.findIndex(canBeMarked);
  return {
    plan,
    assess: {
      film: filmFacts(brief, state),
      hypotheses: state.film.hypotheses,
      work: {
        ...planWork(plan, choice, state),
        ...(marked >= 0
          ? {
              measured: MARK_PLACES.map((places) => ({
                places,
                work: planWork({ ...plan, steps: ifMarked(plan.steps, marked, state.repeatability_m, places) }, choice, state),
              })),
            }
          : {}),
      },
    },
  };
}

/** What a plan is made from. */
export interface PlanQuestion {
  brief: PanelBrief;
  state: PanelState;
  choice: ZoneChoice;
  /** Whether what would make it safe is looked for. */
  remedies?: boolean;
}
export interface JudgedPlan {
  plan: ZonePlan;
  assessment: Assessment;
  /** Zone by zone and school by school, of the same judge; null where it has nothing to go by. */
  chances: PlanChances | null;
}

/** A plan and the verdict on it, of one judge. @throws RangeError for an unknown school or figures outside the models */
export function judgedPlan(
  { brief, state, choice, remedies = true }: PlanQuestion,
  { onProgress, judgeOf: of }: { onProgress?: ((share: number) => void) | undefined; judgeOf?: JudgeOf } = {},
): JudgedPlan {
  const judge = judgeOf(brief, state, of);
  const { plan, assess: question } = planFor(brief, state, choice, judge);
  const assessment = assess({ ...question, remedies }, { onProgress, judge });
  const withSchool = (runSchool: RunSchool) => planFor(brief, state, { ...choice, runSchool }, judge).assess.work;
  const chances = judge && assessment.reason === null ? planChances(judge, { plan, work: question.work, withSchool }, assessment) : null;
  return { plan, assessment, chances };
}

/** A plan as it is kept, with the verdict that stands on it. */
export const planBody = (
  choice: Omit<ZoneChoice, "texture">,
  plan: ZonePlan,
  { verdict, cutChance, thinChance, inferred }: Pick<BodyInputOf<"plan">, "verdict" | "cutChance" | "thinChance" | "inferred">,
): BodyInputOf<"plan"> => ({
  schoolId: choice.schoolId as "short",
  runSchool: plan.runs ? choice.runSchool : null,
  tape_m: choice.tape_m,
  edges: choice.edges ?? "left",
  lines: choice.lines ?? "hand",
  byHand: plan.byHand,
  part: plan.part,
  fill: choice.fill ?? false,
  judgedFrom_m: plan.judgedFrom_m,
  floor_m: choice.floor_m,
  steps: plan.steps,
  removal_m: plan.total.removal_m,
  u_removal_m: plan.total.u_m,
  verdict,
  cutChance,
  thinChance,
  inferred,
});
