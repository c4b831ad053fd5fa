import { requireNumber } from "../guard";
import { type Point, type Polygon, edgeDistances, gridInside, lineDistances } from "../panel/geometry";
import { normalPdf } from "../stats/normal";
import { cellMargin, edgeMultiplier } from "./cell-risk";
import { type FieldUnknowns, fitField, unknownsOf } from "./field-fit";
import { FilmField, type FieldPrior, type FilmObservation, type Prediction } from "./film-field";
import { type PanelGrid, type StripsByHand, panelGrid, stripShares } from "./panel-grid";
import { type PanelRisk, panelRisks } from "./panel-risk";
import { type KnownUnder, type StackName, type StackWeights, clearFromMixture, stackPrior } from "./stack-prior";
import { CUT_GUARD_M, THIN_AREA_SHARE } from "./verdict";

/** What is known of the layers when the panel was not read before clear. */
export interface History {
  weights: StackWeights;
  /** Clear as predicted from the logged coats, when there are any: it replaces the stack's own clear. */
  sprayed?: { clear_m: number; u_m: number } | undefined;
  /** Layers below the clear that the job has logged. */
  known?: KnownUnder | undefined;
}

export interface FilmInput {
  outline: Polygon;
  /** Lines over which film is thin, as drawn on the panel. */
  bodyLines?: readonly (readonly Point[])[] | undefined;
  observations: readonly FilmObservation[];
  history: History;
  removal_m: number;
  u_removal_m: number;
  floor_m: number;
  cutGuard_m?: number;
  tape_m: number;
  /** Strips along the rim and the body lines that are worked by hand, or taped off. */
  byHand?: StripsByHand | undefined;
  /** Share of the gauge's error common to the visits before and after clear; 0 with another gauge or set-up. */
  sameGaugeCorrelation?: number;
  /** How far the probe may have moved between the visits. */
  relocation_m?: number;
  /** Correlation length, spreads and roughness taken as given instead of fitted to the readings. */
  unknowns?: FieldUnknowns;
  draws?: number;
  seed?: number;
}

/** One history the panel may have, with its field. */
export interface World {
  weight: number;
  prior: Partial<FieldPrior>;
}

export interface FilmState {
  worlds: World[];
  mainWorld: number;
  /** Fields and predictions over the grid, one a world. */
  parts: { weight: number; field: FilmField; predicted: Prediction; cut: PanelRisk; thin: PanelRisk }[];
  cutChance: number;
  thinChance: number;
  /** Removal each draw would allow for thin and for cut, ascending, all worlds by their weight. */
  allowedThin_m: Float64Array;
  allowedCut_m: Float64Array;
  /** Largest removal that keeps thin ≤ 5 % and cut ≤ 0.5 %; may be negative. */
  largestSafeRemoval_m: number;
  thinnest: { at: Point; clear_m: number; u_m: number };
  meanClear_m: number;
  u_meanClear_m: number;
  meanMargin_m: number;
}

/** Share of thin and of cut that the largest safe removal keeps to. */
export const SAFE_QUANTILE = { thin: 0.05, cut: 0.005 } as const;
/** Fewer draws for a world of little weight, but never fewer than this. */
const LEAST_DRAWS = 200;
/** Readings the four unknowns are fitted to at most: more tell little about them and cost much. */
const FIT_READINGS = 60;
const READINGS_PLANNED = 3;
/** Nearer to the edge a probe does not sit flat. */
export const LEAST_RIM_M = 0.015;
const LOOK_AHEAD_GRID = { nx: 20, ny: 17 } as const;

/** The histories the panel may have, each with the field's unknowns fitted to the readings under it. @throws RangeError */
export function possibleWorlds(input: FilmInput): World[] {
  const { observations, outline, bodyLines = [] } = input;
  const common: Partial<FieldPrior> = {
    ...(input.sameGaugeCorrelation === undefined
      ? {}
      : { sameGaugeCorrelation: requireNumber("sameGaugeCorrelation", input.sameGaugeCorrelation, { min: 0, max: 1 }) }),
    ...(input.relocation_m === undefined ? {} : { relocation_m: requireNumber("relocation_m", input.relocation_m, { min: 0, max: 1 }) }),
  };
  const few = observations.length > FIT_READINGS ? everyNth(observations, FIT_READINGS) : observations;
  return histories(input).map(({ weight, prior }) => {
    const all = { ...common, ...prior };
    return { weight, prior: { ...all, ...(input.unknowns ?? unknownsOf(fitField(few, outline, all, { bodyLines }))) } };
  });
}

/** `count` members evenly spaced over a list. */
function everyNth<T>(list: readonly T[], count: number): T[] {
  return Array.from({ length: count }, (_, i) => list[Math.floor(((i + 0.5) * list.length) / count)]!);
}

function histories({ observations, history }: FilmInput): World[] {
  if (observations.some((o) => o.layer === "before")) return [{ weight: 1, prior: {} }];
  const names = Object.keys(history.weights) as StackName[];
  const total_m = observations.reduce((a, o) => a + o.total_m, 0) / observations.length;
  const priorOf = (name: StackName): Partial<FieldPrior> => {
    const s = stackPrior(name, history.known);
    const clear = history.sprayed ?? { clear_m: s.clear_m, u_m: s.uClear_m };
    // Edge thinning of a bought or resprayed panel, seen from total film only: −8 ± 6 µm (default of ours).
    return { under_m: s.under_m, uUnder_m: s.uUnder_m, clear_m: clear.clear_m, uClear_m: clear.u_m, edge_m: -8e-6, uEdge_m: 6e-6 };
  };
  const weights: StackWeights = history.sprayed
    ? weighBySprayed(names, history, total_m)
    : clearFromMixture(total_m, 2.5e-6, history.weights, history.known).weights;
  return names.filter((n) => weights[n] > 0.005).map((n) => ({ weight: weights[n], prior: priorOf(n) }));
}

function weighBySprayed(names: StackName[], { weights, sprayed, known }: History, total_m: number): StackWeights {
  const raw = names.map((n) => {
    const { under_m, uUnder_m } = stackPrior(n, known);
    const sd = Math.hypot(uUnder_m, sprayed!.u_m, 2.5e-6);
    return (weights[n] * normalPdf((total_m - under_m - sprayed!.clear_m) / sd)) / sd;
  });
  const sum = raw.reduce((a, b) => a + b, 0);
  return Object.fromEntries(names.map((n, i) => [n, sum > 0 ? raw[i]! / sum : weights[n]])) as StackWeights;
}

/**
 * Film of a panel and its two chances from a list of readings, given the histories it may have.
 * @param assumed how many of the readings are only expected @throws RangeError
 */
export function filmState(
  input: FilmInput,
  observations: readonly FilmObservation[],
  { worlds, grid, assumed = 0, draws = input.draws ?? 2000 }: { worlds: World[]; grid: PanelGrid; assumed?: number; draws?: number },
): FilmState {
  const { outline, bodyLines = [], removal_m, u_removal_m, floor_m, cutGuard_m = CUT_GUARD_M, seed = 1 } = input;
  requireNumber("removal_m", removal_m, { min: 0, max: 1e-3 });
  requireNumber("u_removal_m", u_removal_m, { min: 0, max: 1e-3 });
  requireNumber("floor_m", floor_m, { min: 0, max: 1e-3 });
  let basis: Float64Array | undefined;
  const parts = worlds.map(({ weight, prior }) => {
    const field = new FilmField(observations, outline, prior, { assumed, bodyLines });
    basis ??= field.basisOf(grid.points, grid.edge_m, grid.line_m);
    const predicted = field.predict(grid.points, basis);
    const common = { field, grid, predicted, removal_m, u_removal_m, draws: Math.max(LEAST_DRAWS, Math.round(draws * weight)), seed };
    const [cut, thin] = panelRisks(common, [
      { floor_m: cutGuard_m, areaShare: 0 },
      { floor_m, areaShare: THIN_AREA_SHARE },
    ]);
    return { weight, field, predicted, cut: cut!, thin: thin! };
  });
  const total = parts.reduce((a, p) => a + p.weight, 0);
  const mean = (f: (p: (typeof parts)[number]) => number) => parts.reduce((a, p) => a + (p.weight / total) * f(p), 0);
  const mainWorld = parts.reduce((a, p, i) => (p.weight > parts[a]!.weight ? i : a), 0);
  const main = parts[mainWorld]!;
  // A history of little weight is drawn more often than its share: only as many of its draws as its weight are pooled, evenly chosen.
  const pooled = (which: "cut" | "thin") =>
    Float64Array.from(
      parts.flatMap((p) => everyNth(Array.from(p[which].allowedRemoval_m), Math.max(1, Math.round((draws * p.weight) / total)))),
    ).sort();
  const allowedThin_m = pooled("thin");
  const allowedCut_m = pooled("cut");
  return {
    worlds,
    mainWorld,
    parts,
    cutChance: mean((p) => p.cut.chance),
    thinChance: mean((p) => p.thin.chance),
    allowedThin_m,
    allowedCut_m,
    largestSafeRemoval_m: Math.min(quantile(allowedThin_m, SAFE_QUANTILE.thin), quantile(allowedCut_m, SAFE_QUANTILE.cut)),
    thinnest: { at: main.thin.worstAt, clear_m: main.thin.worstClear_m, u_m: main.thin.u_worstClear_m },
    ...meanFilm(parts, total),
    meanMargin_m: mean((p) => quantile(p.thin.allowedRemoval_m, 0.5)),
  };
}

const quantile = (sorted: Float64Array, p: number) => sorted[Math.min(sorted.length - 1, Math.floor(p * sorted.length))]!;

function meanFilm(parts: readonly { weight: number; field: FilmField }[], total: number) {
  const each = parts.map((p) => ({ weight: p.weight / total, ...p.field.meanOverPanel() }));
  const meanClear_m = each.reduce((a, e) => a + e.weight * e.mean_m, 0);
  const variance = each.reduce((a, e) => a + e.weight * (e.u_m ** 2 + (e.mean_m - meanClear_m) ** 2), 0);
  return { meanClear_m, u_meanClear_m: Math.sqrt(variance) };
}

/** Mean and standard deviation of clear at every place of the grid, all histories by their weight. */
export function mixedFilm({ parts }: Pick<FilmState, "parts">): { mean_m: Float64Array; sd_m: Float64Array } {
  const total = parts.reduce((a, p) => a + p.weight, 0);
  const n = parts[0]!.predicted.mean_m.length;
  const mean_m = new Float64Array(n);
  const square = new Float64Array(n);
  for (const { weight, predicted } of parts)
    for (let i = 0; i < n; i++) {
      mean_m[i]! += (weight / total) * predicted.mean_m[i]!;
      square[i]! += (weight / total) * (predicted.sd_m[i]! ** 2 + predicted.mean_m[i]! ** 2);
    }
  return { mean_m, sd_m: square.map((s, i) => Math.sqrt(Math.max(0, s - mean_m[i]! ** 2))) };
}

/**
 * Readings worth taking next, one after another, each taken as it is expected: the place that most narrows the doubt where the margin is
 * near zero, Σ exp(−z²/2)·cov(C(x), y(x′))²/var(y(x′)). Not the riskiest place: a thin rim may be known already.
 */
export function planReadings(input: FilmInput, prior: Partial<FieldPrior>, most: number): FilmObservation[] {
  const { outline, bodyLines = [], observations, tape_m, removal_m, u_removal_m, floor_m } = input;
  const rim_m = Math.max(tape_m, LEAST_RIM_M);
  const inside = gridInside(outline, LOOK_AHEAD_GRID).map((c) => c.point);
  const edge_m = edgeDistances(inside, outline);
  const share = stripShares(edge_m, lineDistances(inside, bodyLines), input.byHand ?? {});
  const judged = [...inside.keys()].filter((i) => edge_m[i]! >= rim_m && share[i]! > 0);
  const points = judged.map((i) => inside[i]!);
  const multiplier = judged.map((i) => share[i]! * edgeMultiplier(edge_m[i]!));
  const planned: FilmObservation[] = [];
  let basis: Float64Array | undefined;
  let correlation: Float64Array | undefined;
  while (planned.length < most && points.length > 0) {
    const field = new FilmField([...observations, ...planned], outline, prior, { assumed: planned.length, bodyLines });
    basis ??= field.basisOf(points);
    correlation ??= field.correlations(points);
    const predicted = field.predict(points, basis);
    const weight = points.map((_, i) => {
      const { margin_m, sd_m } = cellMargin({
        clear_m: predicted.mean_m[i]!,
        u_clear_m: predicted.sd_m[i]!,
        removal_m,
        u_removal_m,
        multiplier: multiplier[i]!,
        floor_m,
      });
      return Math.exp(-0.5 * (margin_m / sd_m) ** 2);
    });
    const scores = field.readingScores(points, predicted, weight, { readings: READINGS_PLANNED, correlation });
    const at = points[scores.indexOf(Math.max(...scores))]!;
    planned.push({ at, layer: "after", total_m: field.expectedReading(at), n: READINGS_PLANNED });
  }
  return planned;
}

/** The grid of a panel that the film is worked out on. */
export const filmGrid = (
  { outline, tape_m, bodyLines = [], byHand = {} }: Pick<FilmInput, "outline" | "tape_m" | "bodyLines" | "byHand">,
  cells: { nx?: number; ny?: number } = {},
): PanelGrid => panelGrid(outline, tape_m, { ...cells, bodyLines, byHand });
