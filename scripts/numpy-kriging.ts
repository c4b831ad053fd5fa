import * as np from "numpy-ts";
import type { FieldPrior, FilmObservation } from "#core/models/film/film-field";
import { type Point, type Polygon, edgeDistances } from "#core/kernel/geometry/geometry";

// Two matrices of cells × cells and the draws, a few runs of them before what is done with is given back.
np.configureWasm({ maxMemory: 1 << 30 });

/**
 * The film field as somebody would write it with a general-purpose array library (NumPy's interface for JavaScript, compiled kernels): whole matrices,
 * one Cholesky of the readings, one of the cells, all draws at once. For the bench alone; no body lines.
 * @returns mean and standard deviation of clear at every point, µm, and `draws` joint draws (row-major, draws × points)
 */
export function numpyField(
  observations: readonly FilmObservation[],
  outline: Polygon,
  p: FieldPrior,
  points: readonly Point[],
  draws: number,
): { mean_um: Float64Array; sd_um: Float64Array; drawn_um: ArrayLike<number> } {
  const um = (m: number) => m * 1e6;
  const places = (list: readonly Point[]) => np.array(list.map(([x, y]) => [x, y]));
  const column = (values: ArrayLike<number>) => np.array(Array.from(values)).reshape(values.length, 1);
  const matern = (a: np.NDArray, b: np.NDArray) => {
    const dx = a.slice(":", "0:1").subtract(b.slice(":", "0:1").transpose());
    const dy = a.slice(":", "1:2").subtract(b.slice(":", "1:2").transpose());
    const s = np.sqrt(dx.multiply(dx).add(dy.multiply(dy))).multiply(Math.sqrt(5) / p.length_m);
    return s
      .multiply(s)
      .divide(3)
      .add(s)
      .add(1)
      .multiply(np.exp(s.multiply(-1)));
  };
  const after = observations.map((o) => (o.layer === "after" ? 1 : 0));
  const at = places(observations.map((o) => o.at));
  const cells = places(points);
  const edge = (list: readonly Point[]) => column(Array.from(edgeDistances(list, outline), (d) => Math.exp(-d / p.edgeLength_m)));
  const [ho, hc] = [edge(observations.map((o) => o.at)), edge(points)];
  const clear = (a: np.NDArray, b: np.NDArray, ha: np.NDArray, hb: np.NDArray) =>
    matern(a, b)
      .multiply(um(p.sdClear_m) ** 2)
      .add(ha.matmul(hb.transpose()).multiply(um(p.uEdge_m) ** 2))
      .add(um(p.uClear_m) ** 2);
  const a = column(after);
  const both = a.matmul(a.transpose());
  const same = both.add(a.multiply(-1).add(1).matmul(a.multiply(-1).add(1).transpose()));
  const gauge = [0, 1].map((which) => {
    const own = observations.filter((_, i) => after[i] === which);
    const mean = own.length ? own.reduce((sum, o) => sum + o.total_m, 0) / own.length : 0;
    return um((p.gauge.constant_m + p.gauge.proportional * mean) / Math.sqrt(3));
  });
  const u = column(after.map((w) => gauge[w]!));
  const moved = after.includes(0)
    ? 2 * um(p.sdUnder_m) ** 2 * (1 - (matern(places([[0, 0]]), places([[p.relocation_m, 0]])).item(0, 0) as number))
    : 0;
  const noise = np.diag(np.array(observations.map((o, i) => um(p.repeatability_m) ** 2 / o.n + um(p.micro_m) ** 2 + after[i]! * moved)));
  const k = matern(at, at)
    .multiply(um(p.sdUnder_m) ** 2)
    .add(um(p.uUnder_m) ** 2)
    .add(
      same
        .multiply(1 - p.sameGaugeCorrelation)
        .add(p.sameGaugeCorrelation)
        .multiply(u.matmul(u.transpose())),
    )
    .add(clear(at, at, ho, ho).multiply(both))
    .add(noise);
  const trend = (h: np.NDArray) => h.multiply(um(p.edge_m)).add(um(p.clear_m));
  const solve = (right: np.NDArray) => np.linalg.solve(k, right) as unknown as np.NDArray;
  const residual = column(observations.map((o) => um(o.total_m) - um(p.under_m))).subtract(trend(ho).multiply(a));
  const cross = clear(cells, at, hc, ho).multiply(a.transpose());
  const mean = trend(hc).add(cross.matmul(solve(residual)));
  const widening = 1 + p.inflation / after.filter(Boolean).length;
  const posterior = clear(cells, cells, hc, hc)
    .subtract(cross.matmul(solve(cross.transpose())))
    .multiply(widening ** 2);
  const jitter = 1e-6;
  // What the linear algebra gives back is the plain array type: functions, not methods, work on it.
  const factor = np.linalg.cholesky(posterior.add(np.eye(points.length).multiply(jitter)));
  const normals = np.random.standard_normal([points.length, draws]) as never; // an array, for a size of two
  const drawn: unknown = np.add(np.matmul(factor, normals), mean);
  return {
    mean_um: Float64Array.from(mean.flatten().tolist() as number[]),
    sd_um: Float64Array.from(np.sqrt(np.diag(posterior)).tolist() as number[]),
    drawn_um: (drawn as { data: ArrayLike<number> }).data,
  };
}
