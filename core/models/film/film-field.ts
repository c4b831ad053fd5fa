import { requireInteger, requireNumber } from "../../kernel/guard";
import { type Point, type Polygon, edgeDistances, gridInside, lineDistances, requirePolygon } from "../../kernel/geometry/geometry";
import { FILM_BOUNDS } from "../bounds";
import { choleskyFactor, choleskySolve, solveLowerInto } from "../../kernel/stats/cholesky";
import { DEFAULT_GAUGE, type GaugeModel, gaugeUncertainty } from "./gauge";
import { RELOCATION, SAME_GAUGE_CORRELATION } from "./difference";
import { matern52 } from "./matern";

/** One spot's mean reading of the total film, taken before or after the clear. */
export interface FilmObservation {
  at: Point;
  layer: "before" | "after";
  total_m: number;
  /** Count of readings in the mean. */
  n: number;
  /**
   * What was done to the film there since it was read, already taken off (or laid on) `total_m`: which of the field's `changes` and what share
   * of each came to this place.
   */
  since?: readonly { change: number; share: number }[];
  /** Doubt of its own beyond the gauge's scatter: how uneven what was done since was there, how far its readings lie apart. */
  uOwn_m?: number;
}

/**
 * Beliefs before any reading. Clear = flat + edge·exp(−d/edgeLength) + line·exp(−d/lineLength) + field, d to the panel's edge and to the
 * nearest body line; under-layers = mean + field. Defaults of ours, editable.
 */
export interface FieldPrior {
  clear_m: number;
  uClear_m: number;
  edge_m: number;
  uEdge_m: number;
  edgeLength_m: number;
  /** Thinning over a body line. */
  line_m: number;
  uLine_m: number;
  lineLength_m: number;
  under_m: number;
  uUnder_m: number;
  /** Correlation length, spread of clear and of under-layers, roughness below the spot: medians of their priors. */
  length_m: number;
  sdClear_m: number;
  sdUnder_m: number;
  micro_m: number;
  repeatability_m: number;
  sameGaugeCorrelation: number;
  relocation_m: number;
  gauge: GaugeModel;
  /** Standard uncertainty of each thing done to the film between readings: one error for all places it reached. */
  changes_m: readonly number[];
  /** Widens the field for the few readings that fixed it: σ·(1 + inflation/n). */
  inflation: number;
}

export const DEFAULT_FIELD: FieldPrior = {
  clear_m: 55e-6,
  uClear_m: 20e-6,
  edge_m: -12e-6,
  uEdge_m: 8e-6,
  edgeLength_m: 0.03,
  line_m: -8e-6,
  uLine_m: 6e-6,
  lineLength_m: 0.01,
  under_m: 90e-6,
  uUnder_m: 40e-6,
  length_m: 0.25,
  sdClear_m: 6e-6,
  sdUnder_m: 5e-6,
  micro_m: 1.5e-6,
  repeatability_m: 2e-6,
  sameGaugeCorrelation: SAME_GAUGE_CORRELATION,
  relocation_m: RELOCATION.freehand_m,
  gauge: DEFAULT_GAUGE,
  changes_m: [],
  inflation: 1.5,
};

/** Covariance of two readings by what was done to the film after both of them; m². @throws RangeError for a change the list does not hold */
export function sharedChanges(a: FilmObservation, b: FilmObservation, changes_m: readonly number[]): number {
  let v = 0;
  for (const { change, share } of a.since ?? []) {
    const other = b.since?.find((s) => s.change === change);
    if (!other) continue;
    const u_m = changes_m[change];
    if (u_m === undefined) throw new RangeError(`since.change must name one of ${changes_m.length} changes, got ${change}`);
    v += share * other.share * u_m * u_m;
  }
  return v;
}

/** Cells so far from the floor that they cannot matter to the choice of a reading. */
const LEAST_WEIGHT = 1e-4;
const distance = (a: Point, b: Point) => Math.sqrt((a[0] - b[0]) ** 2 + (a[1] - b[1]) ** 2);

export interface Prediction {
  mean_m: Float64Array;
  sd_m: Float64Array;
  /** Share of flat, edge and body-line thinning at each place: 3 a place. */
  basis: Float64Array;
  /** Whitened cross-covariances with the n observations: n a place; joint draws need them. */
  whitened: Float64Array;
}

/**
 * Film of clear over a panel from few readings: joint co-kriging of under-layers B and clear C, where a reading before clear is B + gauge
 * error and one after is B + C + gauge error, so that paired, unpaired and missing before-readings share one path.
 * The four unknowns (length, spreads, roughness) are taken as given: from {@link fitField}, or their prior medians.
 */
export class FilmField {
  readonly prior: FieldPrior;
  private readonly n: number;
  private readonly after: boolean[];
  private readonly bodyLines: readonly (readonly Point[])[];
  private readonly basis: Float64Array; // h(x_i) of clear, 3 per observation; zero for a before-reading
  private readonly factor: Float64Array; // row-major n×n
  private readonly alpha: Float64Array;
  private readonly uGaugeAfter: number;
  private readonly uGaugeBefore: number;
  /** Widening of every standard deviation for the small count of readings. */
  readonly widening: number;

  /**
   * @param assumed how many of the observations are only expected, not taken: they do not narrow the widening
   * @throws RangeError for a bad outline, no reading after clear, or a reading outside 0…5 mm (−1…5 mm where film was taken off since).
   */
  constructor(
    private readonly observations: readonly FilmObservation[],
    private readonly outline: Polygon,
    overrides: Partial<FieldPrior> = {},
    { assumed = 0, bodyLines = [] }: { assumed?: number; bodyLines?: readonly (readonly Point[])[] } = {},
  ) {
    this.bodyLines = bodyLines;
    this.prior = { ...DEFAULT_FIELD, ...overrides };
    requirePolygon("outline", outline);
    const p = this.prior;
    const n = observations.length;
    this.n = n;
    this.after = observations.map((o) => o.layer === "after");
    const nAfter = this.after.filter(Boolean).length;
    if (nAfter === 0) throw new RangeError("observations must hold at least 1 reading after clear, got 0");
    const anyBefore = nAfter < n;
    observations.forEach((o, i) => {
      // What was taken off since may be more than there was: negative film is "through", not an error.
      requireNumber(`observations[${i}].total_m`, o.total_m, FILM_BOUNDS[o.since?.length ? "changed_m" : "total_m"]);
      requireInteger(`observations[${i}].n`, o.n, { min: 1 });
    });
    const meanOf = (after: boolean) => {
      const own = observations.slice(0, n - assumed).filter((_, i) => this.after[i] === after); // an expected reading tells nothing of the gauge
      return own.length ? own.reduce((a, o) => a + o.total_m, 0) / own.length : 0;
    };
    const uGauge = this.after.map((a) => gaugeUncertainty(meanOf(a), p.gauge));
    this.basis = this.basisOf(observations.map((o) => o.at));
    this.after.forEach((after, i) => after || this.basis.fill(0, 3 * i, 3 * i + 3));
    const k = new Float64Array(n * n);
    const moved = anyBefore ? 2 * p.sdUnder_m ** 2 * (1 - matern52(p.relocation_m, p.length_m)) : 0;
    for (let i = 0; i < n; i++)
      for (let j = 0; j <= i; j++) {
        const both = this.after[i] && this.after[j];
        const corr = matern52(distance(observations[i]!.at, observations[j]!.at), p.length_m);
        let v = p.uUnder_m ** 2 + p.sdUnder_m ** 2 * corr;
        v += (this.after[i] === this.after[j] ? 1 : p.sameGaugeCorrelation) * uGauge[i]! * uGauge[j]!;
        v += this.basisCovariance(this.basis, i, this.basis, j);
        if (both) v += p.sdClear_m ** 2 * corr + sharedChanges(observations[i]!, observations[j]!, p.changes_m);
        if (i === j)
          v +=
            p.repeatability_m ** 2 / observations[i]!.n +
            p.micro_m ** 2 +
            (this.after[i] ? moved : 0) +
            (observations[i]!.uOwn_m ?? 0) ** 2;
        k[i * n + j] = k[j * n + i] = v;
      }
    this.factor = choleskyFactor(k, n);
    const residual = observations.map((o, i) => o.total_m - p.under_m - this.basisMean(this.basis, i));
    this.alpha = choleskySolve(this.factor, residual, n);
    this.widening = 1 + p.inflation / Math.max(1, nAfter - assumed);
    this.uGaugeAfter = uGauge[this.after.indexOf(true)]!;
    this.uGaugeBefore = anyBefore ? uGauge[this.after.indexOf(false)]! : 0;
  }

  private basisCovariance(a: Float64Array, i: number, b: Float64Array, j: number): number {
    const { uClear_m, uEdge_m, uLine_m } = this.prior;
    return (
      a[3 * i]! * b[3 * j]! * uClear_m * uClear_m +
      a[3 * i + 1]! * b[3 * j + 1]! * uEdge_m * uEdge_m +
      a[3 * i + 2]! * b[3 * j + 2]! * uLine_m * uLine_m
    );
  }

  private basisMean(a: Float64Array, i: number): number {
    const { clear_m, edge_m, line_m } = this.prior;
    return a[3 * i]! * clear_m + a[3 * i + 1]! * edge_m + a[3 * i + 2]! * line_m;
  }

  /** The shares of flat, edge and body line at places: worked out once for a grid and handed to {@link predict} of every field on it. */
  basisOf(
    points: readonly Point[],
    edge_m = edgeDistances(points, this.outline),
    line_m = lineDistances(points, this.bodyLines),
  ): Float64Array {
    const { edgeLength_m, lineLength_m } = this.prior;
    const basis = new Float64Array(3 * points.length);
    for (let i = 0; i < points.length; i++) {
      basis[3 * i] = 1;
      basis[3 * i + 1] = Math.exp(-edge_m[i]! / edgeLength_m);
      basis[3 * i + 2] = Math.exp(-line_m[i]! / lineLength_m);
    }
    return basis;
  }

  /** Mean and standard deviation of clear at points. */
  predict(points: readonly Point[], basis = this.basisOf(points)): Prediction {
    const { n, prior: p } = this;
    const mean_m = new Float64Array(points.length);
    const sd_m = new Float64Array(points.length);
    const whitened = new Float64Array(points.length * n);
    const cross = new Float64Array(n);
    const vField = p.sdClear_m ** 2;
    points.forEach((point, q) => {
      let mean = this.basisMean(basis, q);
      for (let j = 0; j < n; j++) {
        cross[j] = this.after[j]
          ? this.basisCovariance(basis, q, this.basis, j) + vField * matern52(distance(point, this.observations[j]!.at), p.length_m)
          : 0;
        mean += cross[j]! * this.alpha[j]!;
      }
      const w = solveLowerInto(whitened.subarray(q * n, q * n + n), this.factor, cross, n);
      let explained = 0;
      for (let j = 0; j < n; j++) explained += w[j]! * w[j]!;
      mean_m[q] = mean;
      sd_m[q] = this.widening * Math.sqrt(Math.max(this.basisCovariance(basis, q, basis, q) + vField - explained, 1e-24));
    });
    return { mean_m, sd_m, basis, whitened };
  }

  /** Mean clear over the whole panel with the standard uncertainty of that mean (200-odd places, joint). */
  meanOverPanel(cells = { nx: 16, ny: 13 }): { mean_m: number; u_m: number } {
    const points = gridInside(this.outline, cells).map((c) => c.point);
    if (points.length === 0) throw new RangeError("outline must enclose some panel");
    const { n } = this;
    const m = points.length;
    const predicted = this.predict(points);
    // The sum over all pairs: of what the readings explain and of the basis it is the square of one sum, so that only the field's correlation is
    // taken pair by pair.
    const basis = new Float64Array(3);
    const whitened = new Float64Array(n);
    for (let i = 0; i < m; i++) {
      for (let k = 0; k < 3; k++) basis[k]! += predicted.basis[3 * i + k]!;
      for (let k = 0; k < n; k++) whitened[k]! += predicted.whitened[i * n + k]!;
    }
    let correlation = m;
    for (let i = 0; i < m; i++)
      for (let j = 0; j < i; j++) correlation += 2 * matern52(distance(points[i]!, points[j]!), this.prior.length_m);
    const explained = whitened.reduce((a, w) => a + w * w, 0);
    const variance = this.widening ** 2 * (this.basisCovariance(basis, 0, basis, 0) + this.prior.sdClear_m ** 2 * correlation - explained);
    return { mean_m: predicted.mean_m.reduce((a, b) => a + b, 0) / m, u_m: Math.sqrt(Math.max(0, variance)) / m };
  }

  /** Total film that a next reading after clear is expected to show. */
  expectedReading(point: Point): number {
    const basis = this.basisOf([point]);
    let mean = this.prior.under_m + this.basisMean(basis, 0);
    this.observations.forEach((o, j) => (mean += this.crossReading(point, basis, 0, o, j) * this.alpha[j]!));
    return mean;
  }

  /**
   * How much each place, read once, would narrow the doubt of all places, weighted: Σ_x weight(x)·cov(C(x), y(x′))²/var(y(x′)).
   * @returns one score a place, m²
   */
  readingScores(
    points: readonly Point[],
    predicted: Prediction,
    weight: readonly number[],
    { readings = 3, correlation = this.correlations(points) }: { readings?: number; correlation?: Float64Array } = {},
  ): number[] {
    const { n, prior: p } = this;
    const total = new Float64Array(points.length * n); // whitened cross-covariances of the reading y = B + C + gauge
    const cross = new Float64Array(n);
    const anyBefore = this.after.includes(false);
    const variance = points.map((point, q) => {
      this.observations.forEach((o, j) => (cross[j] = this.crossReading(point, predicted.basis, q, o, j)));
      const w = solveLowerInto(total.subarray(q * n, q * n + n), this.factor, cross, n);
      let v =
        this.basisCovariance(predicted.basis, q, predicted.basis, q) +
        p.sdClear_m ** 2 +
        p.uUnder_m ** 2 +
        p.sdUnder_m ** 2 +
        this.uGaugeAfter ** 2;
      v += p.repeatability_m ** 2 / readings + p.micro_m ** 2;
      if (anyBefore) v += 2 * p.sdUnder_m ** 2 * (1 - matern52(p.relocation_m, p.length_m));
      for (let j = 0; j < n; j++) v -= w[j]! * w[j]!;
      return v;
    });
    const m = points.length;
    const near = Int32Array.from(points.keys()).filter((x) => weight[x]! >= LEAST_WEIGHT);
    const vField = p.sdClear_m ** 2;
    return points.map((_, q) => {
      let score = 0;
      for (const x of near) {
        let c = this.basisCovariance(predicted.basis, x, predicted.basis, q) + vField * correlation[q * m + x]!;
        for (let j = 0; j < n; j++) c -= predicted.whitened[x * n + j]! * total[q * n + j]!;
        score += weight[x]! * c * c;
      }
      return (this.widening ** 2 * score) / variance[q]!;
    });
  }

  /** Correlation of the clear's field between all pairs of places, row-major; depends on the length alone. */
  correlations(points: readonly Point[]): Float64Array {
    const m = points.length;
    const out = new Float64Array(m * m);
    for (let i = 0; i < m; i++)
      for (let j = 0; j <= i; j++) out[i * m + j] = out[j * m + i] = matern52(distance(points[i]!, points[j]!), this.prior.length_m);
    return out;
  }

  /** Covariance of a reading after clear at a place with observation j. */
  private crossReading(point: Point, basis: Float64Array, q: number, o: FilmObservation, j: number): number {
    const { prior: p } = this;
    const corr = matern52(distance(point, o.at), p.length_m);
    const under = p.uUnder_m ** 2 + p.sdUnder_m ** 2 * corr;
    if (!this.after[j]) return under + p.sameGaugeCorrelation * this.uGaugeAfter * this.uGaugeBefore;
    return under + this.uGaugeAfter ** 2 + this.basisCovariance(basis, q, this.basis, j) + p.sdClear_m ** 2 * corr;
  }

  /** Posterior covariance of clear between two predicted points, from what {@link predict} returned. */
  covariance(points: readonly Point[], predicted: Prediction, i: number, j: number): number {
    return this.covariances(points, predicted, [i], j)[0]!;
  }

  /** One column of that covariance: of several places with one of them. */
  covariances(points: readonly Point[], predicted: Prediction, places: readonly number[], with_: number): Float64Array {
    const { n, prior: p } = this;
    const { basis, whitened } = predicted;
    const own = whitened.subarray(with_ * n, with_ * n + n);
    const vField = p.sdClear_m ** 2;
    const widening2 = this.widening ** 2;
    const column = new Float64Array(places.length);
    for (let q = 0; q < places.length; q++) {
      const i = places[q]!;
      let v = this.basisCovariance(basis, i, basis, with_) + vField * matern52(distance(points[i]!, points[with_]!), p.length_m);
      const offset = i * n;
      for (let k = 0; k < n; k++) v -= whitened[offset + k]! * own[k]!;
      column[q] = widening2 * v;
    }
    return column;
  }
}
