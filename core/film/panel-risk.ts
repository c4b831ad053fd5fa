import { requireNumber } from "../guard";
import { type Point, type Polygon, edgeDistance, gridInside } from "../panel/geometry";
import { normals, seededRandom } from "../stats/random";
import { LOCAL_REMOVAL_CV, cellMargin, cellRisk, edgeMultiplier } from "./cell-risk";
import type { FilmField } from "./film-field";
import { matern52 } from "./matern";

export interface PanelRiskInput {
  field: FilmField;
  outline: Polygon;
  removal_m: number;
  u_removal_m: number;
  floor_m: number;
  /** Share of the judged area that must lie below the floor to count: 0 for any place (cut-through), 0.02 for thin. */
  areaShare: number;
  /** Rim that is taped and therefore not sanded nor judged. */
  tape_m: number;
  draws?: number;
  seed?: number;
  grid?: { nx: number; ny: number };
}

export interface PanelRisk {
  /** Chance of the event on the whole panel. */
  chance: number;
  /** Greatest chance at one place, and where. */
  worstChance: number;
  worstAt: Point;
  worstClear_m: number;
  u_worstClear_m: number;
  /** Mean share of the judged area expected below the floor. */
  meanShareBelow: number;
  /** Removal each draw would have allowed, ascending: a quantile of it is the largest safe removal. */
  allowedRemoval_m: Float64Array;
  judgedCells: number;
}

const WORST_CELLS = 100;
/** Cells whose margin is above this many standard deviations cannot decide a draw. */
const PRUNE_SD = 4.5;
const PRUNE_SPREAD_SD = 2.5;
const RANK_MAX = 200;
const RESIDUAL_SHARE = 0.01;

/**
 * Chance that the panel ends too thin after a removal, from joint draws of the clear's field, the common removal error and its local
 * unevenness (docs/models.md, "Risk"). Antithetic, seeded: the same inputs give the same answer.
 * @throws RangeError when no cell is left to judge or a figure is out of range.
 */
export function panelRisk(input: PanelRiskInput): PanelRisk {
  const { field, outline, removal_m, u_removal_m, floor_m, areaShare, tape_m, draws = 2000, seed = 1, grid } = input;
  requireNumber("areaShare", areaShare, { min: 0, below: 1 });
  requireNumber("tape_m", tape_m, { min: 0 });
  requireNumber("draws", draws, { min: 2, max: 1e6 });
  const cells = gridInside(outline, grid).filter((c) => edgeDistance(c.point, outline) >= tape_m);
  if (cells.length === 0) throw new RangeError(`tape_m must leave some panel to judge, got ${tape_m}`);
  const points = cells.map((c) => c.point);
  const multiplier = points.map((p) => edgeMultiplier(edgeDistance(p, outline)));
  const predicted = field.predict(points);
  const at = (i: number) => ({
    clear_m: predicted.mean_m[i]!,
    u_clear_m: predicted.sd_m[i]!,
    removal_m,
    u_removal_m,
    multiplier: multiplier[i]!,
    floor_m,
  });
  const chances = points.map((_, i) => cellRisk(at(i)));
  const z = points.map((_, i) => {
    const { margin_m, sd_m } = cellMargin(at(i));
    return margin_m / sd_m;
  });

  const sortedZ = [...z].sort((a, b) => a - b);
  const worstZ = sortedZ[Math.min(WORST_CELLS - 1, sortedZ.length - 1)]!;
  const coarse = cells.flatMap((c, i) => ((c.column % 2 === 0 && c.row % 2 === 0) || (areaShare === 0 && z[i]! <= worstZ) ? [i] : []));
  const chosen = coarse.length ? coarse : cells.map((_, i) => i);
  const limit = Math.max(PRUNE_SD, sortedZ[0]! + PRUNE_SPREAD_SD);
  const active = chosen.filter((i) => z[i]! < limit);
  if (active.length === 0) active.push(z.indexOf(sortedZ[0]!));

  const rows = jointFactor(input, points, predicted, active, multiplier);
  const rank = Math.min(Math.floor(areaShare * chosen.length), active.length - 1);
  const { remaining, allowed } = drawPanels(input, predicted.mean_m, active, multiplier, rows, { draws, seed, rank });
  const worst = chances.reduce((best, c, i) => (c > chances[best]! ? i : best), 0);
  return {
    chance: remaining.filter((r) => r < 0).length / remaining.length,
    worstChance: chances[worst]!,
    worstAt: points[worst]!,
    worstClear_m: predicted.mean_m[worst]!,
    u_worstClear_m: predicted.sd_m[worst]!,
    meanShareBelow: chances.reduce((a, b) => a + b, 0) / chances.length,
    allowedRemoval_m: allowed.sort(),
    judgedCells: cells.length,
  };
}

/** Rows of a low-rank factor of the joint covariance of the active cells (pivoted Cholesky), rescaled to the exact variances. */
function jointFactor(
  { field, removal_m }: PanelRiskInput,
  points: readonly Point[],
  predicted: ReturnType<FilmField["predict"]>,
  active: readonly number[],
  multiplier: readonly number[],
): Float64Array[] {
  const n = active.length;
  const local2 = (removal_m * LOCAL_REMOVAL_CV) ** 2;
  const length_m = field.prior.length_m;
  const diagonal = Float64Array.from(active, (i) => predicted.sd_m[i]! ** 2 + local2 * multiplier[i]! ** 2);
  const residual = diagonal.slice();
  const tolerance = RESIDUAL_SHARE * Math.max(...diagonal);
  const factor: Float64Array[] = [];
  while (factor.length < RANK_MAX) {
    let pivot = 0;
    for (let i = 1; i < n; i++) if (residual[i]! > residual[pivot]!) pivot = i;
    if (residual[pivot]! < tolerance) break;
    const root = Math.sqrt(residual[pivot]!);
    const [px, py] = points[active[pivot]!]!;
    const row = new Float64Array(n);
    for (let i = 0; i < n; i++) {
      const [x, y] = points[active[i]!]!;
      const corr = matern52(Math.sqrt((x - px) ** 2 + (y - py) ** 2), length_m);
      let v = field.covariance(points, predicted, active[i]!, active[pivot]!);
      v += local2 * multiplier[active[i]!]! * multiplier[active[pivot]!]! * corr;
      for (const f of factor) v -= f[i]! * f[pivot]!;
      row[i] = v / root;
      residual[i] = Math.max(0, residual[i]! - row[i]! ** 2);
    }
    factor.push(row);
  }
  for (let i = 0; i < n; i++) {
    const kept = factor.reduce((a, f) => a + f[i]! ** 2, 0);
    const scale = kept > 0 ? Math.sqrt(diagonal[i]! / kept) : 0;
    for (const f of factor) f[i] = f[i]! * scale;
  }
  return factor;
}

function drawPanels(
  { removal_m, u_removal_m, floor_m }: PanelRiskInput,
  mean_m: Float64Array,
  active: readonly number[],
  multiplier: readonly number[],
  factor: readonly Float64Array[],
  { draws, seed, rank }: { draws: number; seed: number; rank: number },
): { remaining: Float64Array; allowed: Float64Array } {
  const n = active.length;
  const pairs = Math.ceil(draws / 2);
  const normal = normals(seededRandom(seed));
  const remaining = new Float64Array(2 * pairs);
  const allowed = new Float64Array(2 * pairs);
  const wave = new Float64Array(n);
  const margin = new Float64Array(n);
  const room = new Float64Array(n);
  const buffer = new Float64Array(rank + 1);
  const zeros = new Float64Array(n);
  for (let d = 0; d < pairs; d++) {
    wave.fill(0);
    // Four rows at a time: a quarter of the reads and writes of the wave, which is what this loop waits for.
    for (let r = 0; r < factor.length; r += 4) {
      const [a, b, c, e] = [factor[r]!, factor[r + 1] ?? zeros, factor[r + 2] ?? zeros, factor[r + 3] ?? zeros];
      const [wa, wb, wc, we] = [normal(), normal(), normal(), normal()];
      for (let i = 0; i < n; i++) wave[i] = wave[i]! + wa * a[i]! + wb * b[i]! + wc * c[i]! + we * e[i]!;
    }
    const e = normal();
    for (const sign of [1, -1]) {
      for (let i = 0; i < n; i++) {
        const m = multiplier[active[i]!]!;
        const film = mean_m[active[i]!]! + sign * wave[i]! - floor_m;
        margin[i] = film - m * (removal_m + sign * u_removal_m * e);
        room[i] = film / m;
      }
      const slot = 2 * d + (sign === 1 ? 0 : 1);
      remaining[slot] = smallest(margin, rank, buffer);
      allowed[slot] = smallest(room, rank, buffer) - sign * u_removal_m * e;
    }
  }
  return { remaining, allowed };
}

/** The rank-th smallest member (0 = least), kept in a short sorted buffer: rank is at most 2 % of the cells. */
function smallest(values: Float64Array, rank: number, buffer: Float64Array): number {
  buffer.fill(Infinity);
  for (const v of values) {
    if (v >= buffer[rank]!) continue;
    let slot = rank;
    for (; slot > 0 && buffer[slot - 1]! > v; slot--) buffer[slot] = buffer[slot - 1]!;
    buffer[slot] = v;
  }
  return buffer[rank]!;
}
