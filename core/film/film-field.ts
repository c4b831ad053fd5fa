import { requireInteger, requireNumber } from "../guard";
import { type Point, type Polygon, edgeDistance, gridInside, requirePolygon } from "../panel/geometry";
import { choleskyFactor, choleskySolve, solveLowerInto } from "../stats/cholesky";
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
}

/** Beliefs before any reading. Clear = flat + edge·exp(−d/edgeLength) + field; under-layers = mean + field. Defaults of ours, editable. */
export interface FieldPrior {
  clear_m: number;
  uClear_m: number;
  edge_m: number;
  uEdge_m: number;
  edgeLength_m: number;
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
  /** Widens the field for the few readings that fixed it: σ·(1 + inflation/n). */
  inflation: number;
}

export const DEFAULT_FIELD: FieldPrior = {
  clear_m: 55e-6,
  uClear_m: 20e-6,
  edge_m: -12e-6,
  uEdge_m: 8e-6,
  edgeLength_m: 0.03,
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
  inflation: 1.5,
};

const distance = (a: Point, b: Point) => Math.sqrt((a[0] - b[0]) ** 2 + (a[1] - b[1]) ** 2);

/**
 * Film of clear over a panel from few readings: joint co-kriging of under-layers B and clear C, where a reading before clear is B + gauge
 * error and one after is B + C + gauge error, so that paired, unpaired and missing before-readings share one path.
 * Hyperparameters stay at their prior medians here.
 */
export class FilmField {
  readonly prior: FieldPrior;
  private readonly n: number;
  private readonly after: boolean[];
  private readonly basis: Float64Array; // h(x_i) of clear, 2 per observation; zero for a before-reading
  private readonly factor: Float64Array; // row-major n×n
  private readonly alpha: Float64Array;
  private readonly uGaugeAfter: number;
  private readonly uGaugeBefore: number;
  /** Widening of every standard deviation for the small count of readings. */
  readonly widening: number;

  /**
   * @param assumed how many of the observations are only expected, not taken: they do not narrow the widening
   * @throws RangeError for a bad outline, no reading after clear, or a reading outside 0…5 mm.
   */
  constructor(
    private readonly observations: readonly FilmObservation[],
    private readonly outline: Polygon,
    overrides: Partial<FieldPrior> = {},
    { assumed = 0 }: { assumed?: number } = {},
  ) {
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
      requireNumber(`observations[${i}].total_m`, o.total_m, { min: 0, max: 5e-3 });
      requireInteger(`observations[${i}].n`, o.n, { min: 1 });
    });
    const meanOf = (after: boolean) => {
      const own = observations.slice(0, n - assumed).filter((_, i) => this.after[i] === after); // an expected reading tells nothing of the gauge
      return own.length ? own.reduce((a, o) => a + o.total_m, 0) / own.length : 0;
    };
    const uGauge = this.after.map((a) => gaugeUncertainty(meanOf(a), p.gauge));
    this.basis = new Float64Array(2 * n);
    observations.forEach((o, i) => {
      if (!this.after[i]) return;
      this.basis[2 * i] = 1;
      this.basis[2 * i + 1] = Math.exp(-edgeDistance(o.at, outline) / p.edgeLength_m);
    });
    const k = new Float64Array(n * n);
    const moved = anyBefore ? 2 * p.sdUnder_m ** 2 * (1 - matern52(p.relocation_m, p.length_m)) : 0;
    for (let i = 0; i < n; i++)
      for (let j = 0; j <= i; j++) {
        const both = this.after[i] && this.after[j];
        const corr = matern52(distance(observations[i]!.at, observations[j]!.at), p.length_m);
        let v = p.uUnder_m ** 2 + p.sdUnder_m ** 2 * corr;
        v += (this.after[i] === this.after[j] ? 1 : p.sameGaugeCorrelation) * uGauge[i]! * uGauge[j]!;
        v += this.basisCovariance(this.basis[2 * i]!, this.basis[2 * i + 1]!, j);
        if (both) v += p.sdClear_m ** 2 * corr;
        if (i === j) v += p.repeatability_m ** 2 / observations[i]!.n + p.micro_m ** 2 + (this.after[i] ? moved : 0);
        k[i * n + j] = k[j * n + i] = v;
      }
    this.factor = choleskyFactor(k, n);
    const residual = observations.map((o, i) => o.total_m - p.under_m - this.basis[2 * i]! * p.clear_m - this.basis[2 * i + 1]! * p.edge_m);
    this.alpha = choleskySolve(this.factor, residual, n);
    this.widening = 1 + p.inflation / Math.max(1, nAfter - assumed);
    this.uGaugeAfter = uGauge[this.after.indexOf(true)]!;
    this.uGaugeBefore = anyBefore ? uGauge[this.after.indexOf(false)]! : 0;
  }

  private basisCovariance(h0: number, h1: number, j: number): number {
    return h0 * this.prior.uClear_m ** 2 * this.basis[2 * j]! + h1 * this.prior.uEdge_m ** 2 * this.basis[2 * j + 1]!;
  }

  /** Mean and standard deviation of clear at points, with the whitened cross-covariances that joint draws need (n per point). */
  predict(points: readonly Point[]): { mean_m: Float64Array; sd_m: Float64Array; edgeBasis: Float64Array; whitened: Float64Array } {
    const { n, prior: p } = this;
    const mean_m = new Float64Array(points.length);
    const sd_m = new Float64Array(points.length);
    const edgeBasis = new Float64Array(points.length);
    const whitened = new Float64Array(points.length * n);
    const cross = new Float64Array(n);
    points.forEach((point, q) => {
      const h1 = Math.exp(-edgeDistance(point, this.outline) / p.edgeLength_m);
      edgeBasis[q] = h1;
      let mean = p.clear_m + h1 * p.edge_m;
      for (let j = 0; j < n; j++) {
        cross[j] = this.after[j]
          ? this.basisCovariance(1, h1, j) + p.sdClear_m ** 2 * matern52(distance(point, this.observations[j]!.at), p.length_m)
          : 0;
        mean += cross[j]! * this.alpha[j]!;
      }
      const w = solveLowerInto(whitened.subarray(q * n, q * n + n), this.factor, cross, n);
      let explained = 0;
      for (let j = 0; j < n; j++) explained += w[j]! * w[j]!;
      mean_m[q] = mean;
      const variance = p.uClear_m ** 2 + h1 * h1 * p.uEdge_m ** 2 + p.sdClear_m ** 2 - explained;
      sd_m[q] = this.widening * Math.sqrt(Math.max(variance, 1e-24));
    });
    return { mean_m, sd_m, edgeBasis, whitened };
  }

  /** Mean clear over the whole panel with the standard uncertainty of that mean (200-odd places, joint). */
  meanOverPanel(): { mean_m: number; u_m: number } {
    const points = gridInside(this.outline, { nx: 16, ny: 13 }).map((c) => c.point);
    if (points.length === 0) throw new RangeError("outline must enclose some panel");
    const predicted = this.predict(points);
    let variance = 0;
    for (let i = 0; i < points.length; i++) for (let j = 0; j < i; j++) variance += 2 * this.covariance(points, predicted, i, j);
    for (let i = 0; i < points.length; i++) variance += predicted.sd_m[i]! ** 2;
    return {
      mean_m: predicted.mean_m.reduce((a, b) => a + b, 0) / points.length,
      u_m: Math.sqrt(Math.max(0, variance)) / points.length,
    };
  }

  /** Total film that a next reading after clear is expected to show. */
  expectedReading(point: Point): number {
    const { prior: p } = this;
    const h1 = Math.exp(-edgeDistance(point, this.outline) / p.edgeLength_m);
    let mean = p.under_m + p.clear_m + h1 * p.edge_m;
    this.observations.forEach((o, j) => (mean += this.crossReading(point, h1, o, j) * this.alpha[j]!));
    return mean;
  }

  /**
   * How much each place, read once, would narrow the doubt of all places, weighted: Σ_x weight(x)·cov(C(x), y(x′))²/var(y(x′)).
   * @returns one score a place, m²
   */
  readingScores(
    points: readonly Point[],
    predicted: ReturnType<FilmField["predict"]>,
    weight: readonly number[],
    n_readings = 3,
  ): number[] {
    const { n, prior: p } = this;
    const total = new Float64Array(points.length * n); // whitened cross-covariances of the reading y = B + C + gauge
    const cross = new Float64Array(n);
    const anyBefore = this.after.includes(false);
    const variance = points.map((point, q) => {
      const h1 = predicted.edgeBasis[q]!;
      this.observations.forEach((o, j) => (cross[j] = this.crossReading(point, h1, o, j)));
      const w = solveLowerInto(total.subarray(q * n, q * n + n), this.factor, cross, n);
      let v = p.uClear_m ** 2 + h1 * h1 * p.uEdge_m ** 2 + p.sdClear_m ** 2 + p.uUnder_m ** 2 + p.sdUnder_m ** 2 + this.uGaugeAfter ** 2;
      v += p.repeatability_m ** 2 / n_readings + p.micro_m ** 2;
      if (anyBefore) v += 2 * p.sdUnder_m ** 2 * (1 - matern52(p.relocation_m, p.length_m));
      for (let j = 0; j < n; j++) v -= w[j]! * w[j]!;
      return v;
    });
    return points.map((there, q) => {
      let score = 0;
      for (let x = 0; x < points.length; x++) {
        if (weight[x]! < 1e-6) continue;
        let c = p.uClear_m ** 2 + predicted.edgeBasis[x]! * predicted.edgeBasis[q]! * p.uEdge_m ** 2;
        c += p.sdClear_m ** 2 * matern52(distance(points[x]!, there), p.length_m);
        for (let j = 0; j < n; j++) c -= predicted.whitened[x * n + j]! * total[q * n + j]!;
        score += weight[x]! * c * c;
      }
      return (this.widening ** 2 * score) / variance[q]!;
    });
  }

  /** Covariance of a reading after clear at a place with observation j. */
  private crossReading(point: Point, h1: number, o: FilmObservation, j: number): number {
    const { prior: p } = this;
    const corr = matern52(distance(point, o.at), p.length_m);
    const under = p.uUnder_m ** 2 + p.sdUnder_m ** 2 * corr;
    if (!this.after[j]) return under + p.sameGaugeCorrelation * this.uGaugeAfter * this.uGaugeBefore;
    return under + this.uGaugeAfter ** 2 + this.basisCovariance(1, h1, j) + p.sdClear_m ** 2 * corr;
  }

  /** Posterior covariance of clear between two predicted points, from what {@link predict} returned. */
  covariance(points: readonly Point[], predicted: ReturnType<FilmField["predict"]>, i: number, j: number): number {
    const { n, prior: p } = this;
    const { edgeBasis, whitened } = predicted;
    let v =
      p.uClear_m ** 2 +
      edgeBasis[i]! * edgeBasis[j]! * p.uEdge_m ** 2 +
      p.sdClear_m ** 2 * matern52(distance(points[i]!, points[j]!), p.length_m);
    for (let k = 0; k < n; k++) v -= whitened[i * n + k]! * whitened[j * n + k]!;
    return this.widening ** 2 * v;
  }
}
