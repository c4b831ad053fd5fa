import { edgeDistances, lineDistances, type Point, type Polygon } from "../../kernel/geometry/geometry";
import { choleskyFactor, solveLowerInto } from "../../kernel/stats/cholesky";
import { nelderMead } from "../../kernel/stats/nelder-mead";
import { DEFAULT_FIELD, type FieldPrior, type FilmObservation, sharedChanges } from "./film-field";
import { gaugeUncertainty } from "./gauge";
import { matern52 } from "./matern";

/** Spread of the logarithms of the field's four unknowns about their medians; defaults of ours. */
const LOG_SD = { length_m: 0.5, sdClear_m: 0.5, sdUnder_m: 0.5, micro_m: 0.4 } as const;
export type FieldUnknowns = Pick<FieldPrior, keyof typeof LOG_SD>;
const NAMES = Object.keys(LOG_SD) as (keyof FieldUnknowns)[];
/** Films are worked in µm: the matrix stays near one. */
const UM = 1e-6;

export interface FieldFit extends FieldUnknowns {
  /** Negative logarithm of likelihood × prior at the fit, films in µm, without its constant. */
  objective: number;
  evaluations: number;
}

/** The fitted figures alone, as the field takes them. */
export const unknownsOf = ({ length_m, sdClear_m, sdUnder_m, micro_m }: FieldFit): FieldUnknowns => ({
  length_m,
  sdClear_m,
  sdUnder_m,
  micro_m,
});

/**
 * The most likely correlation length, spreads and roughness of a panel's film, given its readings and log-normal beliefs about them
 * (maximum a posteriori, Nelder–Mead on the logarithms).
 * @param most evaluations at most: 120 are enough for a panel @throws RangeError for no readings
 */
export function fitField(
  observations: readonly FilmObservation[],
  outline: Polygon,
  overrides: Partial<FieldPrior> = {},
  { most = 120, bodyLines = [] }: { most?: number; bodyLines?: readonly (readonly Point[])[] } = {},
): FieldFit {
  if (observations.length === 0) throw new RangeError("observations must have at least 1 member, got 0");
  const p = { ...DEFAULT_FIELD, ...overrides };
  const n = observations.length;
  const after = observations.map((o) => o.layer === "after");
  const anyBefore = after.includes(false);
  const meanOf = (which: boolean) => {
    const own = observations.filter((_, i) => after[i] === which);
    return own.length ? own.reduce((a, o) => a + o.total_m, 0) / own.length : 0;
  };
  const u = after.map((a) => gaugeUncertainty(meanOf(a), p.gauge) / UM);
  const places = observations.map((o) => o.at);
  const edge = edgeDistances(places, outline).map((d, i) => (after[i] ? Math.exp(-d / p.edgeLength_m) : 0));
  const line = lineDistances(places, bodyLines).map((d, i) => (after[i] ? Math.exp(-d / p.lineLength_m) : 0));
  const flat = after.map((a) => (a ? 1 : 0));
  // What does not depend on the unknowns, once.
  const fixed = new Float64Array(n * n);
  const apart = new Float64Array(n * n);
  for (let i = 0; i < n; i++)
    for (let j = 0; j <= i; j++) {
      const [a, b] = [observations[i]!.at, observations[j]!.at];
      apart[i * n + j] = Math.sqrt((a[0] - b[0]) ** 2 + (a[1] - b[1]) ** 2);
      fixed[i * n + j] =
        (p.uUnder_m / UM) ** 2 +
        (after[i] === after[j] ? 1 : p.sameGaugeCorrelation) * u[i]! * u[j]! +
        flat[i]! * flat[j]! * (p.uClear_m / UM) ** 2 +
        edge[i]! * edge[j]! * (p.uEdge_m / UM) ** 2 +
        line[i]! * line[j]! * (p.uLine_m / UM) ** 2 +
        sharedChanges(observations[i]!, observations[j]!, p.changes_m) / UM ** 2 +
        (i === j ? (p.repeatability_m / UM) ** 2 / observations[i]!.n + ((observations[i]!.uOwn_m ?? 0) / UM) ** 2 : 0);
    }
  const residual = observations.map(
    (o, i) => (o.total_m - p.under_m - flat[i]! * p.clear_m - edge[i]! * p.edge_m - line[i]! * p.line_m) / UM,
  );
  const start = NAMES.map((name) => Math.log(p[name]));
  const k = new Float64Array(n * n);
  const z = new Float64Array(n);
  const objective = (t: readonly number[]): number => {
    const [length, clear, under, micro] = t.map(Math.exp) as [number, number, number, number];
    const vClear = (clear / UM) ** 2;
    const vUnder = (under / UM) ** 2;
    const vMicro = (micro / UM) ** 2;
    const moved = anyBefore ? 2 * vUnder * (1 - matern52(p.relocation_m, length)) : 0;
    for (let i = 0; i < n; i++)
      for (let j = 0; j <= i; j++) {
        const corr = matern52(apart[i * n + j]!, length);
        let v = fixed[i * n + j]! + vUnder * corr;
        if (after[i] && after[j]) v += vClear * corr;
        if (i === j) v += vMicro + (after[i] ? moved : 0);
        k[i * n + j] = k[j * n + i] = v;
      }
    const factor = choleskyFactor(k, n);
    solveLowerInto(z, factor, residual, n);
    let value = 0;
    for (let i = 0; i < n; i++) value += 0.5 * z[i]! * z[i]! + Math.log(factor[i * n + i]!);
    NAMES.forEach((name, i) => (value += 0.5 * ((t[i]! - start[i]!) / LOG_SD[name]) ** 2));
    return value;
  };
  const found = nelderMead(objective, start, { most });
  const [length_m, sdClear_m, sdUnder_m, micro_m] = found.x.map(Math.exp) as [number, number, number, number];
  return { length_m, sdClear_m, sdUnder_m, micro_m, objective: found.value, evaluations: found.evaluations };
}
