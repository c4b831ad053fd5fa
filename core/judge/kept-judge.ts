import type { FilmFacts, StackHypothesis } from "./film-facts";
import { FilmJudge } from "./film-judge";

/** The judge of a film; one for all that is asked of the same. */
export type JudgeOf = (
  film: FilmFacts,
  o?: { hypotheses?: readonly StackHypothesis[] | undefined; draws?: number | undefined; seed?: number | undefined },
) => FilmJudge;

/** Made anew each time: the film's fields and draws come with it. */
export const freshJudge: JudgeOf = (film, o) => new FilmJudge(film, o);

/**
 * Keeps the judge that was asked last: plan, options and map of one panel ask the same film, and its fields and draws are most of the work. Two
 * films with the same facts are the same film.
 */
export function keepJudge(): JudgeOf {
  let kept: { of: string; judge: FilmJudge } | null = null;
  return (film, o = {}) => {
    const of = JSON.stringify([film, o.hypotheses, o.draws, o.seed]);
    if (kept?.of !== of) kept = { of, judge: new FilmJudge(film, o) };
    return kept.judge;
  };
}
