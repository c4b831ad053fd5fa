import { type Point, edgeDistances, gridInside, lineDistances } from "../kernel/geometry/geometry";
import { FilmField, type FilmObservation } from "../models/film/film-field";
import { cellMargin } from "./cell-risk";
import type { FilmJudge, Work } from "./film-judge";
import { stepsAt } from "./film-facts";
import { type WorkedPlace, readable, workedShare } from "./judge-cells";
import { DEFAULT_TAPE_M, USUAL_REMOVAL_DOUBT } from "./limits";

const GRID = { nx: 20, ny: 17 } as const;
const READINGS_PLANNED = 3;

/**
 * Readings worth taking next, one after another, each taken as it is expected: the place that most narrows the doubt where the margin is
 * near zero, Σ exp(−z²/2)·cov(C(x), y(x′))²/var(y(x′)). Not the riskiest place: a thin rim may be known already. Where only single places are
 * worked, the panel counts as if what comes off there came off it all.
 */
export function planReadings(judge: FilmJudge, { panel, local, floor_m }: Work, most: number): FilmObservation[] {
  const { outline, bodyLines = [], observations } = judge.film;
  const points = gridInside(outline, GRID).map((c) => c.point);
  const all = { points, edge_m: edgeDistances(points, outline), line_m: lineDistances(points, bodyLines) };
  const removal_m = panel?.removal_m ?? Math.max(0, ...local.map((t) => t.removal_m));
  const place: WorkedPlace = panel ?? { rim_m: DEFAULT_TAPE_M };
  const share = workedShare(all, place);
  const open = readable(all, place.rim_m).filter((i) => share[i]! > 0);
  const places = open.map((i): Point => points[i]!);
  const steps = stepsAt(judge.film.steps, places);
  const planned: FilmObservation[] = [];
  let basis: Float64Array | undefined;
  let correlation: Float64Array | undefined;
  while (planned.length < most && places.length > 0) {
    const field = new FilmField([...observations, ...planned], outline, judge.prior(), { assumed: planned.length, bodyLines });
    basis ??= field.basisOf(places);
    correlation ??= field.correlations(places);
    const predicted = field.predict(places, basis);
    const weight = places.map((_, i) => {
      const { margin_m, sd_m } = cellMargin({
        clear_m: predicted.mean_m[i]! + steps.change_m[i]!,
        u_clear_m: predicted.sd_m[i]!,
        removal_m,
        u_removal_m: panel?.u_m ?? USUAL_REMOVAL_DOUBT * removal_m,
        multiplier: share[open[i]!]!,
        floor_m,
      });
      return Math.exp(-0.5 * (margin_m / sd_m) ** 2);
    });
    const scores = field.readingScores(places, predicted, weight, { readings: READINGS_PLANNED, correlation });
    const at = places[scores.indexOf(Math.max(...scores))]!;
    planned.push({ at, layer: "after", total_m: field.expectedReading(at), n: READINGS_PLANNED });
  }
  return planned;
}
