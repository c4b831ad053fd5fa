import { requireNumber } from "../guard";
import { type Point, type Polygon, edgeDistance, gridInside } from "../panel/geometry";
import { normalPdf } from "../stats/normal";
import { FilmField, type FieldPrior, type FilmObservation } from "./film-field";
import { cellMargin, edgeMultiplier } from "./cell-risk";
import { type PanelRisk, panelRisk } from "./panel-risk";
import { type KnownUnder, type StackName, type StackWeights, clearFromMixture, stackPrior } from "./stack-prior";
import { CUT_GUARD_M, LEAST_SPOTS, THIN_AREA_SHARE, type Verdict, verdictOf } from "./verdict";

/** What is known of the layers when the panel was not read before clear. */
export interface History {
  weights: StackWeights;
  /** Clear as predicted from the logged coats, when there are any: it replaces the stack's own clear. */
  sprayed?: { clear_m: number; u_m: number } | undefined;
  /** Layers below the clear that the job has logged. */
  known?: KnownUnder | undefined;
}

export interface AssessInput {
  outline: Polygon;
  observations: readonly FilmObservation[];
  history: History;
  removal_m: number;
  u_removal_m: number;
  floor_m: number;
  cutGuard_m?: number;
  tape_m: number;
  /** Chance of cutting through at the runs, worked out beside the panel's own. */
  runCutChance?: number;
  draws?: number;
  seed?: number;
}

export interface Assessment {
  verdict: Verdict;
  /** Why there is no verdict, in plain words. */
  reason: string | null;
  cutChance: number;
  thinChance: number;
  /** Largest removal that keeps thin ≤ 5 % and cut ≤ 0.5 %; may be negative. */
  largestSafeRemoval_m: number;
  thinnest: { at: Point; clear_m: number; u_m: number } | null;
  meanClear_m: number;
  u_meanClear_m: number;
  inferred: boolean;
  /** Readings that are expected to make it safe when the verdict is "uncertain". */
  readingsWanted: { count: number; at: Point[] } | null;
}

const LOOK_AHEAD = [4, 8, 12] as const;
const LOOK_AHEAD_DRAWS = 800;
const LOOK_AHEAD_GRID = { nx: 20, ny: 17 } as const;
/** Nearer to the edge a probe does not sit flat. */
const LEAST_RIM_M = 0.015;
const READINGS_PLANNED = 3;
const NOTHING: Omit<Assessment, "reason"> = {
  verdict: "none",
  cutChance: NaN,
  thinChance: NaN,
  largestSafeRemoval_m: NaN,
  thinnest: null,
  meanClear_m: NaN,
  u_meanClear_m: NaN,
  inferred: false,
  readingsWanted: null,
};

/**
 * Verdict on a removal for a whole panel from its spots: joint field of film, draws, the two chances, the largest safe removal, and
 * whether more readings would settle it. Without before-readings every possible history is worked through and weighted.
 * @throws RangeError for readings or outlines outside the models.
 */
export function assessPanel(input: AssessInput, { onProgress }: { onProgress?: (share: number) => void } = {}): Assessment {
  const { observations, outline, runCutChance = 0, draws = 2000 } = input;
  requireNumber("runCutChance", runCutChance, { min: 0, max: 1 });
  const after = observations.filter((o) => o.layer === "after");
  if (after.length < LEAST_SPOTS)
    return { ...NOTHING, reason: `${after.length} of at least ${LEAST_SPOTS} spots read after clear: too few to judge the panel.` };
  const inferred = observations.every((o) => o.layer === "after");
  const worlds = possibleWorlds(input, inferred);
  const chancesOf = (list: readonly FilmObservation[], assumed: number, count = draws) =>
    combine(
      worlds.map(({ weight, prior }) => {
        const field = new FilmField(list, outline, prior, { assumed });
        return { weight, field, ...bothRisks(input, field, Math.max(200, Math.round(count * weight))) };
      }),
      runCutChance,
    );
  const now = chancesOf(observations, 0);
  onProgress?.(0.4);
  let verdict: Verdict = verdictOf({ cut: now.cutChance, thin: now.thinChance });
  let readingsWanted: Assessment["readingsWanted"] = null;
  if (verdict !== "safe" && now.meanMargin_m > 0) {
    const planned = planReadings(input, worlds[now.mainWorld]!.prior, Math.max(...LOOK_AHEAD));
    for (const [i, count] of LOOK_AHEAD.entries()) {
      onProgress?.(0.4 + 0.2 * i);
      const expected = planned.slice(0, count);
      const later = chancesOf([...observations, ...expected], expected.length, LOOK_AHEAD_DRAWS);
      if (verdictOf({ cut: later.cutChance, thin: later.thinChance }) !== "safe") continue;
      verdict = "uncertain";
      readingsWanted = { count, at: expected.map((o) => o.at) };
      break;
    }
  }
  return {
    verdict,
    reason: null,
    cutChance: now.cutChance,
    thinChance: now.thinChance,
    largestSafeRemoval_m: now.largestSafeRemoval_m,
    thinnest: now.thinnest,
    meanClear_m: now.meanClear_m,
    u_meanClear_m: now.u_meanClear_m,
    inferred,
    readingsWanted,
  };
}

interface World {
  weight: number;
  prior: Partial<FieldPrior>;
}

function possibleWorlds({ observations, history }: AssessInput, inferred: boolean): World[] {
  if (!inferred) return [{ weight: 1, prior: {} }];
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

function bothRisks(input: AssessInput, field: FilmField, draws: number): { cut: PanelRisk; thin: PanelRisk } {
  const { outline, removal_m, u_removal_m, tape_m, floor_m, cutGuard_m = CUT_GUARD_M, seed = 1 } = input;
  const common = { field, outline, removal_m, u_removal_m, tape_m, draws, seed };
  return {
    cut: panelRisk({ ...common, floor_m: cutGuard_m, areaShare: 0 }),
    thin: panelRisk({ ...common, floor_m, areaShare: THIN_AREA_SHARE }),
  };
}

const quantile = (sorted: Float64Array, p: number) => sorted[Math.min(sorted.length - 1, Math.floor(p * sorted.length))]!;

function combine(parts: readonly { weight: number; field: FilmField; cut: PanelRisk; thin: PanelRisk }[], runCut: number) {
  const total = parts.reduce((a, p) => a + p.weight, 0);
  const mean = (f: (p: (typeof parts)[number]) => number) => parts.reduce((a, p) => a + (p.weight / total) * f(p), 0);
  const mainWorld = parts.reduce((a, p, i) => (p.weight > parts[a]!.weight ? i : a), 0);
  const main = parts[mainWorld]!;
  const pooled = (f: (p: (typeof parts)[number]) => PanelRisk) =>
    Float64Array.from(parts.flatMap((p) => Array.from(f(p).allowedRemoval_m))).sort();
  return {
    mainWorld,
    cutChance: 1 - (1 - mean((p) => p.cut.chance)) * (1 - runCut),
    thinChance: mean((p) => p.thin.chance),
    largestSafeRemoval_m: Math.min(
      quantile(
        pooled((p) => p.thin),
        0.05,
      ),
      quantile(
        pooled((p) => p.cut),
        0.005,
      ),
    ),
    thinnest: { at: main.thin.worstAt, clear_m: main.thin.worstClear_m, u_m: main.thin.u_worstClear_m },
    ...meanFilm(parts, total),
    meanMargin_m: mean((p) => quantile(p.thin.allowedRemoval_m, 0.5)),
  };
}

function meanFilm(parts: readonly { weight: number; field: FilmField }[], total: number) {
  const each = parts.map((p) => ({ weight: p.weight / total, ...p.field.meanOverPanel() }));
  const meanClear_m = each.reduce((a, e) => a + e.weight * e.mean_m, 0);
  const variance = each.reduce((a, e) => a + e.weight * (e.u_m ** 2 + (e.mean_m - meanClear_m) ** 2), 0);
  return { meanClear_m, u_meanClear_m: Math.sqrt(variance) };
}

/**
 * Readings worth taking next, one after another, each taken as it is expected: the place that most narrows the doubt where the margin is
 * near zero, Σ exp(−z²/2)·cov(C(x), y(x′))²/var(y(x′)). Not the riskiest place: a thin rim may be known already.
 */
function planReadings(input: AssessInput, prior: Partial<FieldPrior>, most: number): FilmObservation[] {
  const { outline, observations, tape_m, removal_m, u_removal_m, floor_m } = input;
  const rim_m = Math.max(tape_m, LEAST_RIM_M);
  const points = gridInside(outline, LOOK_AHEAD_GRID)
    .map((c) => c.point)
    .filter((p) => edgeDistance(p, outline) >= rim_m);
  const planned: FilmObservation[] = [];
  while (planned.length < most && points.length > 0) {
    const field = new FilmField([...observations, ...planned], outline, prior, { assumed: planned.length });
    const predicted = field.predict(points);
    const weight = points.map((p, i) => {
      const { margin_m, sd_m } = cellMargin({
        clear_m: predicted.mean_m[i]!,
        u_clear_m: predicted.sd_m[i]!,
        removal_m,
        u_removal_m,
        multiplier: edgeMultiplier(edgeDistance(p, outline)),
        floor_m,
      });
      return Math.exp(-0.5 * (margin_m / sd_m) ** 2);
    });
    const scores = field.readingScores(points, predicted, weight);
    const at = points[scores.indexOf(Math.max(...scores))]!;
    planned.push({ at, layer: "after", total_m: field.expectedReading(at), n: READINGS_PLANNED });
  }
  return planned;
}
