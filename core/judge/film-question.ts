import { type PanelBrief, SUBSTRATES } from "../panel/brief";
import type { PanelFacts } from "../panel/derive-panel";
import type { Removal } from "../models/correction/removal-plan";
import type { PanelState } from "./account";
import type { AssessInput } from "./assess";
import type { FilmFacts } from "./film-facts";
import { headlineRemoval, workOf } from "./work";

/** What the judge goes by, from a panel's facts. */
export function filmFacts(
  brief: PanelBrief,
  facts: Pick<PanelFacts, "observations" | "changes_m" | "repeatability_m" | "expectedClear" | "knownUnder" | "sessions" | "foil">,
): FilmFacts {
  return {
    outline: brief.shape.outline,
    bodyLines: brief.shape.bodyLines,
    observations: facts.observations,
    changes_m: facts.changes_m,
    history: { weights: SUBSTRATES[brief.substrate].weights, sprayed: facts.expectedClear ?? undefined, known: facts.knownUnder },
    foil: facts.foil,
    sameGaugeCorrelation: facts.sessions.correlation,
    relocation_m: facts.sessions.relocation_m,
    repeatability_m: facts.repeatability_m,
  };
}

/** What is still to come of the plan in force, and the question to the judge from here; null with no plan or nothing left. */
export function assessFromHere(brief: PanelBrief, state: PanelState): { removal: Removal; assess: AssessInput } | null {
  const { plan, stepsDone } = state;
  if (!plan || stepsDone.length >= plan.body.steps.length) return null;
  return {
    removal: headlineRemoval(plan.body.steps, stepsDone.length),
    assess: {
      film: filmFacts(brief, state),
      worlds: state.film.worlds,
      work: workOf(plan.body, state.localWork, stepsDone.length),
    },
  };
}
