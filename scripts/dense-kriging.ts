import { CholeskyDecomposition, Matrix } from "ml-matrix";
import type { FieldPrior, FilmObservation } from "#core/models/film/film-field";
import { matern52 } from "#core/models/film/matern";
import { type Point, type Polygon, edgeDistance } from "#core/kernel/geometry/geometry";

/**
 * The film field written out plainly as one dense Gaussian regression with a general-purpose matrix library: what the core's own is held
 * against in tests and in the bench. No body lines; every covariance is built, nothing is shared or pruned.
 */
export function denseField(
  observations: readonly FilmObservation[],
  outline: Polygon,
  p: FieldPrior,
  points: readonly Point[],
): { mean_m: number[]; sd_m: number[]; covariance: Matrix } {
  const um = (m: number) => m * 1e6;
  const after = observations.map((o) => (o.layer === "after" ? 1 : 0));
  const anyBefore = after.includes(0);
  const gaugeOf = (which: number) => {
    const own = observations.filter((_, i) => after[i] === which);
    const mean = own.length ? own.reduce((a, o) => a + o.total_m, 0) / own.length : 0;
    return um((p.gauge.constant_m + p.gauge.proportional * mean) / Math.sqrt(3));
  };
  const u = [gaugeOf(0), gaugeOf(1)];
  const h = (at: Point): [number, number] => [1, Math.exp(-edgeDistance(at, outline) / p.edgeLength_m)];
  const corr = (a: Point, b: Point) => matern52(Math.hypot(a[0] - b[0], a[1] - b[1]), p.length_m);
  const clear = (a: Point, b: Point) => {
    const [ha, hb] = [h(a), h(b)];
    return um(p.uClear_m) ** 2 + ha[1] * hb[1] * um(p.uEdge_m) ** 2 + um(p.sdClear_m) ** 2 * corr(a, b);
  };
  const moved = anyBefore ? 2 * um(p.sdUnder_m) ** 2 * (1 - matern52(p.relocation_m, p.length_m)) : 0;
  const n = observations.length;
  const k = new Matrix(n, n);
  const residual = new Matrix(n, 1);
  observations.forEach((a, i) => {
    const [h0, h1] = h(a.at);
    residual.set(i, 0, um(a.total_m) - um(p.under_m) - after[i]! * (h0 * um(p.clear_m) + h1 * um(p.edge_m)));
    observations.forEach((b, j) => {
      let v = um(p.uUnder_m) ** 2 + um(p.sdUnder_m) ** 2 * corr(a.at, b.at);
      v += (after[i] === after[j] ? 1 : p.sameGaugeCorrelation) * u[after[i]!]! * u[after[j]!]!;
      if (after[i] && after[j]) v += clear(a.at, b.at);
      if (i === j) v += um(p.repeatability_m) ** 2 / a.n + um(p.micro_m) ** 2 + after[i]! * moved;
      k.set(i, j, v);
    });
  });
  const cross = new Matrix(points.length, n);
  points.forEach((q, i) => observations.forEach((o, j) => cross.set(i, j, after[j] ? clear(q, o.at) : 0)));
  const solved = new CholeskyDecomposition(k);
  const weights = solved.solve(residual);
  const prior = new Matrix(points.length, points.length);
  points.forEach((a, i) => points.forEach((b, j) => prior.set(i, j, clear(a, b))));
  const widening = 1 + p.inflation / after.filter(Boolean).length;
  const covariance = Matrix.sub(prior, cross.mmul(solved.solve(cross.transpose()))).mul(widening ** 2);
  const mean = cross.mmul(weights);
  return {
    mean_m: points.map((q, i) => (um(p.clear_m) + h(q)[1] * um(p.edge_m) + mean.get(i, 0)) * 1e-6),
    sd_m: points.map((_, i) => Math.sqrt(covariance.get(i, i)) * 1e-6),
    covariance,
  };
}
