import { requireNumber } from "../kernel/guard";
import { FILM_BOUNDS } from "../models/bounds";
import type { Point, Polygon } from "../kernel/geometry/geometry";
import { normalPdf } from "../kernel/stats/normal";
import { type FieldUnknowns, fitField, unknownsOf } from "../models/film/field-fit";
import type { FieldPrior, FilmObservation } from "../models/film/film-field";
import type { FilmStep } from "../panel/film-record";
import { inRegion } from "../kernel/geometry/region";
import { CHECKED_GAUGE_CORRELATION, SAME_GAUGE_CORRELATION } from "../models/film/difference";
import { DEFAULT_GAUGE, type GaugeModel } from "../models/film/gauge";
import { type KnownUnder, type StackName, type StackWeights, clearFromMixture, stackPrior } from "../models/film/stack-prior";
import { LEAST_SPOTS, UNMEASURED } from "./limits";

/** What is known of the layers when the panel was not read before clear, and of the clear by its logged coats. */
export interface History {
  weights: StackWeights;
  /** Clear that should be there now by the logged coats, less what was taken off, when there are any. */
  sprayed?: { clear_m: number; u_m: number } | undefined;
  /** Layers below the clear that the job has logged. */
  known?: KnownUnder | undefined;
}

/** Everything that the film of a panel is judged from; no question in it. */
export interface FilmFacts {
  outline: Polygon;
  /** Lines over which film is thin, as drawn on the panel. */
  bodyLines?: readonly (readonly Point[])[] | undefined;
  observations: readonly FilmObservation[];
  /** Doubt of each thing done to the film since a reading, as the observations name them. */
  changes_m?: readonly number[];
  /** Steps of the film at the borders of parts that were worked alone; the observations are what they would be without them. */
  steps?: readonly FilmStep[];
  history: History;
  /** A foil check was logged with the readings after clear, and held. */
  foil: boolean;
  /** Share of the gauge's error common to the visits before and after clear; 0 with another gauge or set-up. */
  sameGaugeCorrelation?: number;
  /** How far the probe may have moved between the visits. */
  relocation_m?: number;
  /** Repeatability of a single reading, pooled over the panel's own repeats; else the field's default. */
  repeatability_m?: number | undefined;
  /** Where no gauge reads: what the clear is foretold to be, by its coats or by a strip beside it. The observations then tell nothing. */
  forecast?: { clear_m: number; u_m: number } | undefined;
  /** What the film of each place differs by on its own, a share of it; left away: what it usually does. */
  uneven?: number;
  /** Correlation length, spreads and roughness taken as given instead of fitted to the readings. */
  unknowns?: FieldUnknowns;
}

/** One history the panel may have, with its field's beliefs fitted to the readings under it. */
export interface StackHypothesis {
  weight: number;
  prior: Partial<FieldPrior>;
}

/** What the steps of the film come to at places, and the variance they bring. */
export function stepsAt(steps: FilmFacts["steps"], places: readonly Point[]): { change_m: Float64Array; variance: Float64Array } {
  const change_m = new Float64Array(places.length);
  const variance = new Float64Array(places.length);
  for (const step of steps ?? [])
    places.forEach((at, i) => {
      if (!inRegion(at, step.region)) return;
      change_m[i]! += step.change_m;
      variance[i]! += step.u_m ** 2;
    });
  return { change_m, variance };
}

/** Readings over clear as they would be had no part of the panel been worked alone. */
export function withoutSteps(observations: FilmFacts["observations"], steps: NonNullable<FilmFacts["steps"]>): FilmFacts["observations"] {
  if (steps.length === 0) return observations;
  const { change_m } = stepsAt(
    steps,
    observations.map((o) => o.at),
  );
  return observations.map((o, i) => (o.layer === "after" ? { ...o, total_m: o.total_m - change_m[i]! } : o));
}

/** Readings the four unknowns are fitted to at most: more tell little about them and cost much. */
const FIT_READINGS = 60;
/** Doubt of a mean of totals when histories are weighed. */
const U_TOTAL_M = 2.5e-6;
/** Edge thinning of a bought or resprayed panel, seen from total film only (default of ours). */
const INFERRED_EDGE_M = { edge_m: -8e-6, uEdge_m: 6e-6 } as const;

/** Why nothing can be judged yet; null when there are readings enough. */
export function tooFewReadings(observations: FilmFacts["observations"]): string | null {
  const after = observations.filter((o) => o.layer === "after").length;
  return after < LEAST_SPOTS ? `${after} of at least ${LEAST_SPOTS} spots read after clear: too few to judge the panel.` : null;
}

/** Whether the clear is inferred from totals alone. */
export const isInferred = (observations: FilmFacts["observations"]): boolean => observations.every((o) => o.layer === "after");

/** The histories the panel may have, each with the field's unknowns fitted to the readings under it. @throws RangeError */
export function stackHypotheses(film: FilmFacts): StackHypothesis[] {
  const { observations, outline, bodyLines = [] } = film;
  const gauge: GaugeModel = film.foil
    ? DEFAULT_GAUGE
    : {
        ...DEFAULT_GAUGE,
        constant_m: UNMEASURED.gaugeFactor * DEFAULT_GAUGE.constant_m,
        proportional: UNMEASURED.gaugeFactor * DEFAULT_GAUGE.proportional,
      };
  const common: Partial<FieldPrior> = {
    gauge,
    changes_m: film.changes_m ?? [],
    sameGaugeCorrelation: correlationOf(film),
    ...(film.repeatability_m === undefined
      ? {}
      : { repeatability_m: requireNumber("repeatability_m", film.repeatability_m, { above: 0, max: FILM_BOUNDS.total_m.max }) }),
    ...(film.relocation_m === undefined ? {} : { relocation_m: requireNumber("relocation_m", film.relocation_m, { min: 0, max: 1 }) }),
  };
  if (film.forecast) return [{ weight: 1, prior: { ...common, ...foretold(film.forecast) } }];
  const few = observations.length > FIT_READINGS ? everyNth(observations, FIT_READINGS) : observations;
  return histories(film).map(({ weight, prior }) => {
    const all = { ...common, ...prior };
    return { weight, prior: { ...all, ...(film.unknowns ?? unknownsOf(fitField(few, outline, all, { bodyLines }))) } };
  });
}

/** How much of the gauge's error the visits before and after clear share: more where one foil check held for both. */
function correlationOf({ sameGaugeCorrelation = SAME_GAUGE_CORRELATION, foil }: FilmFacts): number {
  const told = requireNumber("sameGaugeCorrelation", sameGaugeCorrelation, { min: 0, max: 1 });
  return foil && told > 0 ? Math.max(told, CHECKED_GAUGE_CORRELATION) : told;
}

/** Beliefs where nothing is read: the clear as it is foretold, thinner at the edges as usual, on nothing that would be read with it. */
const foretold = ({ clear_m, u_m }: { clear_m: number; u_m: number }): Partial<FieldPrior> => ({
  under_m: 0,
  uUnder_m: 0,
  clear_m,
  uClear_m: u_m,
  inflation: 0,
});

/** `count` members evenly spaced over a list. */
function everyNth<T>(list: readonly T[], count: number): T[] {
  return Array.from({ length: count }, (_, i) => list[Math.floor(((i + 0.5) * list.length) / count)]!);
}

function histories({ observations, history }: FilmFacts): StackHypothesis[] {
  const { sprayed } = history;
  if (!isInferred(observations)) return [{ weight: 1, prior: sprayed ? { clear_m: sprayed.clear_m, uClear_m: sprayed.u_m } : {} }];
  const names = Object.keys(history.weights) as StackName[];
  const total_m = observations.reduce((a, o) => a + o.total_m, 0) / observations.length;
  const priorOf = (name: StackName): Partial<FieldPrior> => {
    const s = stackPrior(name, history.known);
    const clear = sprayed ?? { clear_m: s.clear_m, u_m: s.uClear_m };
    return { under_m: s.under_m, uUnder_m: s.uUnder_m, clear_m: clear.clear_m, uClear_m: clear.u_m, ...INFERRED_EDGE_M };
  };
  const weights = sprayed
    ? weighBySprayed(names, history, total_m)
    : clearFromMixture(total_m, U_TOTAL_M, history.weights, history.known).weights;
  return names.filter((n) => weights[n] > 0.005).map((n) => ({ weight: weights[n], prior: priorOf(n) }));
}

function weighBySprayed(names: StackName[], { weights, sprayed, known }: History, total_m: number): StackWeights {
  const raw = names.map((n) => {
    const { under_m, uUnder_m } = stackPrior(n, known);
    const sd = Math.hypot(uUnder_m, sprayed!.u_m, U_TOTAL_M);
    return (weights[n] * normalPdf((total_m - under_m - sprayed!.clear_m) / sd)) / sd;
  });
  const sum = raw.reduce((a, b) => a + b, 0);
  return Object.fromEntries(names.map((n, i) => [n, sum > 0 ? raw[i]! / sum : weights[n]])) as StackWeights;
}
