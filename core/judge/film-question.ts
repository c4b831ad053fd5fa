import { innermost } from "../kernel/geometry/geometry";
import { LEAST_SPOTS } from "./limits";
import { type PanelBrief, SUBSTRATES, noGaugeReads } from "../panel/brief";
import type { PanelFacts } from "../panel/derive-panel";
import type { Removal } from "../models/correction/removal-plan";
import type { PanelState } from "./account";
import type { AssessInput } from "./assess";
import { type FilmFacts, withoutSteps } from "./film-facts";
import { headlineRemoval, withoutMarks, workOf } from "./work";

/** What the judge goes by, from a panel's facts. */
export function filmFacts(
  brief: PanelBrief,
  facts: Pick<
    PanelFacts,
    "observations" | "changes_m" | "steps" | "repeatability_m" | "expectedClear" | "strip" | "knownUnder" | "sessions" | "foil"
  >,
): FilmFacts {
  const told = foretoldClear(brief, facts);
  if (told)
    return {
      outline: brief.shape.outline,
      bodyLines: brief.shape.bodyLines,
      observations: unread(brief, told.clear_m),
      history: { weights: SUBSTRATES[brief.substrate].weights, sprayed: told },
      forecast: told,
      foil: false,
    };
  return {
    outline: brief.shape.outline,
    bodyLines: brief.shape.bodyLines,
    observations: withoutSteps(facts.observations, facts.steps),
    changes_m: facts.changes_m,
    steps: facts.steps,
    history: {
      weights: SUBSTRATES[brief.substrate].weights,
      sprayed: facts.expectedClear ? sprayedWithout(facts.expectedClear, facts.steps) : undefined,
      known: facts.knownUnder,
    },
    foil: facts.foil,
    sameGaugeCorrelation: facts.sessions.correlation,
    relocation_m: facts.sessions.relocation_m,
    repeatability_m: facts.repeatability_m,
  };
}

/** The clear that the coats foretell, as it would be had no part of the panel been worked alone. */
function sprayedWithout({ clear_m, u_m }: { clear_m: number; u_m: number }, steps: PanelFacts["steps"]) {
  return { clear_m: clear_m - steps.reduce((a, s) => a + s.areaShare * s.change_m, 0), u_m };
}

/** The clear of a part on which no gauge reads: by the strip beside it, else by its logged coats; null where a gauge reads, or nothing is on. */
export function foretoldClear(
  brief: Pick<PanelBrief, "substrate">,
  { strip, expectedClear, observations }: Pick<PanelFacts, "strip" | "expectedClear" | "observations">,
): { clear_m: number; u_m: number; how: "by a strip beside it" | "forecast" } | null {
  if (!noGaugeReads(brief.substrate) || observations.some((o) => o.layer === "after")) return null;
  if (strip) return { clear_m: Math.max(0, strip.clear_m), u_m: strip.u_m, how: "by a strip beside it" };
  return expectedClear && { clear_m: Math.max(0, expectedClear.clear_m), u_m: expectedClear.u_m, how: "forecast" };
}

/** Readings that tell nothing, for a field that wants some: of so large a doubt that what is foretold stays as it is. */
const TELLS_NOTHING_M = 1e-2;
const unread = ({ shape }: PanelBrief, clear_m: number): FilmFacts["observations"] =>
  Array.from({ length: LEAST_SPOTS }, () => ({
    at: innermost(shape.outline),
    layer: "after" as const,
    total_m: clear_m,
    n: 1,
    uOwn_m: TELLS_NOTHING_M,
  }));

/**
 * What is still to come of the plan in force, what that would be without the marks read since, and the question to the judge from here; null with
 * no plan or nothing left.
 */
export function assessFromHere(
  brief: PanelBrief,
  state: PanelState,
): { removal: Removal; unmarked: Removal | null; assess: AssessInput } | null {
  const { plan, stepsDone } = state;
  if (!plan || stepsDone.length >= plan.body.steps.length) return null;
  return {
    removal: headlineRemoval(plan.body.steps, stepsDone.length),
    unmarked: withoutMarks(plan.body.steps, state.toldSince, stepsDone.length),
    assess: {
      film: filmFacts(brief, state),
      hypotheses: state.film.hypotheses,
      work: workOf(plan.body, state.localWork, stepsDone.length, state.doneSince),
    },
  };
}
