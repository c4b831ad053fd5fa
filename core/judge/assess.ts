import type { Point } from "../kernel/geometry/geometry";
import { type FilmFacts, type StackHypothesis, tooFewReadings } from "./film-facts";
import { type ClearThere, FilmJudge, type MarkPlaces, type Risk, type Thinnest, type Work } from "./film-judge";
import type { WorkedPlace } from "./judge-cells";
import { type JudgeOf, freshJudge } from "./kept-judge";
import { USUAL_REMOVAL_DOUBT, DEFAULT_TAPE_M, type Verdict } from "./limits";
import { planReadings } from "./next-reading";

/** A question put to the judge: what a work would risk on this film. */
export interface AssessInput {
  film: FilmFacts;
  /** Histories as they were fitted before to the same facts; else they are fitted anew. */
  hypotheses?: readonly StackHypothesis[] | undefined;
  work: Work;
  /** Whether what would make it safe is looked for. */
  remedies?: boolean;
  draws?: number;
  seed?: number;
}

export interface Assessment {
  verdict: Verdict;
  /** Why there is no verdict, in plain words. */
  reason: string | null;
  cutChance: number;
  thinChance: number;
  local: Risk["local"];
  /** The same chances of the places that are worked as they are, with nothing done to them. */
  asItIs: Pick<Risk, "cutChance" | "thinChance">;
  /** Largest removal over the panel, or at the places that are worked, that is still *safe*; may be negative. */
  largestSafeRemoval_m: number;
  thinnest: Thinnest | null;
  mean: ClearThere | null;
  inferred: boolean;
  /** What alone would make it safe, were it known as it is expected. */
  wouldHelp: Remedy[];
}
export type Remedy = { what: "readings"; count: number; at: Point[] } | { what: "foil" } | { what: "mark"; places: MarkPlaces };

/** Readings that may be asked for, and draws that tell whether they would do. */
const LOOK_AHEAD = [4, 8, 12] as const;
const LOOK_AHEAD_DRAWS = 600;
const NOTHING = {
  verdict: "none",
  cutChance: NaN,
  thinChance: NaN,
  local: [],
  asItIs: { cutChance: NaN, thinChance: NaN },
  largestSafeRemoval_m: NaN,
  thinnest: null,
  mean: null,
  inferred: false,
  wouldHelp: [],
} as const;

/**
 * Verdict on a work: its chances at the places where it is done, the most that may come off, and what would make it safe if it is not.
 * @param o.judge of the very film asked about, when there is one already
 * @throws RangeError for readings, outlines or figures outside the models
 */
export function assess(
  input: AssessInput,
  {
    onProgress,
    judge: known,
    judgeOf = freshJudge,
  }: { onProgress?: ((share: number) => void) | undefined; judge?: FilmJudge | null; judgeOf?: JudgeOf } = {},
): Assessment {
  const reason = tooFewReadings(input.film.observations);
  if (reason) return { ...NOTHING, local: [], wouldHelp: [], reason };
  const judge = known ?? judgeOf(input.film, { hypotheses: input.hypotheses, draws: input.draws, seed: input.seed });
  onProgress?.(0.2);
  const risk = judge.risk(input.work);
  onProgress?.(0.5);
  const { panel, floor_m } = input.work;
  const place: WorkedPlace = panel ?? { rim_m: DEFAULT_TAPE_M };
  const uRel = panel && panel.removal_m > 0 ? panel.u_m / panel.removal_m : USUAL_REMOVAL_DOUBT;
  const { local } = input.work;
  // Asked of single places, it speaks of those and of no other.
  const atPlaces = panel === null && local.length > 0;
  const safe_m = atPlaces ? judge.safeAtPlaces(local, floor_m) : judge.allowance({ ...place, uRel, floor_m }).safe_m;
  onProgress?.(0.6);
  return {
    verdict: risk.verdict,
    reason: null,
    cutChance: risk.cutChance,
    thinChance: risk.thinChance,
    local: risk.local,
    largestSafeRemoval_m: safe_m,
    asItIs: judge.asItIs(input.work),
    thinnest: atPlaces ? judge.thinnestOf(local.map((t) => t.at)) : judge.thinnest({ region: place.region }),
    mean: judge.mean(),
    inferred: judge.inferred,
    wouldHelp: risk.verdict === "safe" || input.remedies === false ? [] : remedies(judge, input, onProgress),
  };
}

/** What alone would turn it safe: a foil check with the readings, a removal measured at a mark, more readings as they are expected. */
function remedies(judge: FilmJudge, { film, work }: AssessInput, onProgress?: (share: number) => void): Remedy[] {
  const found: Remedy[] = [];
  const safe = (other: FilmJudge, asked: Work) => other.risk(asked).verdict === "safe";
  const marks = work.measured?.find((m) => safe(judge, m.work));
  if (marks) found.push({ what: "mark", places: marks.places });
  onProgress?.(0.7);
  if (!film.foil && safe(new FilmJudge({ ...film, foil: true }, { draws: LOOK_AHEAD_DRAWS }), work)) found.push({ what: "foil" });
  const planned = planReadings(judge, work, Math.max(...LOOK_AHEAD));
  for (const [i, count] of LOOK_AHEAD.entries()) {
    onProgress?.(0.75 + 0.08 * i);
    const expected = planned.slice(0, count);
    if (expected.length < count) break;
    const later = new FilmJudge(
      { ...film, observations: [...film.observations, ...expected] },
      { hypotheses: judge.hypotheses, draws: LOOK_AHEAD_DRAWS, assumed: expected.length },
    );
    if (!safe(later, work)) continue;
    found.push({ what: "readings", count, at: expected.map((o) => o.at) });
    break;
  }
  return found;
}
