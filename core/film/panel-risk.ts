import { requireInteger, requireNumber } from "../guard";
import type { Point } from "../panel/geometry";
import { normalCdf } from "../stats/normal";
import { normals, seededRandom } from "../stats/random";
import { LOCAL_REMOVAL_CV, cellMargin } from "./cell-risk";
import type { FilmField, Prediction } from "./film-field";
import { matern52 } from "./matern";
import type { PanelGrid } from "./panel-grid";

export interface RiskEvent {
  floor_m: number;
  /** Share of the judged area that must lie below the floor to count: 0 for any place (cut-through), 0.02 for thin. */
  areaShare: number;
}

export interface PanelRiskInput {
  field: FilmField;
  grid: PanelGrid;
  /** Of every place of the grid, if it has been worked out already. */
  predicted?: Prediction;
  removal_m: number;
  u_removal_m: number;
  draws?: number;
  seed?: number;
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

/** What one event needs of the draws: its cells among those drawn, and how many of them may fail. */
interface EventCells {
  floor_m: number;
  cells: Int32Array;
  rank: number;
  chances: Float64Array;
  worst: number;
}

/**
 * Chance that the panel ends too thin after a removal, for each of several events, from joint draws of the clear's field, the common
 * removal error and its local unevenness (docs/models.md, "Risk"). All events share the draws. Antithetic, seeded: the same inputs give
 * the same answer.
 * @throws RangeError when a figure is out of range.
 */
export function panelRisks(input: PanelRiskInput, events: readonly RiskEvent[]): PanelRisk[] {
  const { field, grid, predicted = field.predict(grid.points), removal_m, draws = 2000, seed = 1 } = input;
  requireInteger("draws", draws, { min: 2, max: 1e6 });
  const each = events.map((event, i) => eventCells(input, predicted, event, `events[${i}]`));
  const active = [...new Set(each.flatMap((e) => [...e.cells]))].sort((a, b) => a - b);
  const slot = new Map(active.map((cell, i) => [cell, i]));
  const factor = jointFactor(field, grid, predicted, active, removal_m);
  const drawn = drawPanels(
    input,
    {
      mean_m: Float64Array.from(active, (i) => predicted.mean_m[i]!),
      multiplier: Float64Array.from(active, (i) => grid.multiplier[i]!),
    },
    factor,
    each.map((e) => ({ ...e, cells: e.cells.map((c) => slot.get(c)!) })),
    { draws, seed },
  );
  return each.map((e, i) => ({
    chance: drawn[i]!.failed / drawn[i]!.allowed.length,
    worstChance: e.chances[e.worst]!,
    worstAt: grid.points[grid.judged[e.worst]!]!,
    worstClear_m: predicted.mean_m[grid.judged[e.worst]!]!,
    u_worstClear_m: predicted.sd_m[grid.judged[e.worst]!]!,
    meanShareBelow: e.chances.reduce((a, b) => a + b, 0) / e.chances.length,
    allowedRemoval_m: drawn[i]!.allowed.sort(),
    judgedCells: grid.judged.length,
  }));
}

/** One event alone. */
export const panelRisk = (input: PanelRiskInput & RiskEvent): PanelRisk => panelRisks(input, [input])[0]!;

function eventCells(
  { grid, removal_m, u_removal_m }: PanelRiskInput,
  predicted: Prediction,
  { floor_m, areaShare }: RiskEvent,
  name: string,
): EventCells {
  requireNumber(`${name}.areaShare`, areaShare, { min: 0, below: 1 });
  const { judged, coarse, multiplier } = grid;
  const z = new Map<number, number>();
  const chances = Float64Array.from(judged, (i) => {
    const m = cellMargin({
      clear_m: predicted.mean_m[i]!,
      u_clear_m: predicted.sd_m[i]!,
      removal_m,
      u_removal_m,
      multiplier: multiplier[i]!,
      floor_m,
    });
    z.set(i, m.margin_m / m.sd_m);
    return normalCdf(-m.margin_m / m.sd_m);
  });
  const sorted = [...z.values()].sort((a, b) => a - b);
  const worstZ = sorted[Math.min(WORST_CELLS, sorted.length) - 1]!;
  const chosen = areaShare === 0 ? [...new Set([...coarse, ...judged.filter((i) => z.get(i)! <= worstZ)])] : [...coarse];
  const limit = Math.max(PRUNE_SD, sorted[0]! + PRUNE_SPREAD_SD);
  const cells = chosen.filter((i) => z.get(i)! < limit);
  if (cells.length === 0) cells.push(judged.find((i) => z.get(i)! === sorted[0])!);
  return {
    floor_m,
    cells: Int32Array.from(cells),
    rank: Math.min(Math.floor(areaShare * chosen.length), cells.length - 1),
    chances,
    worst: chances.reduce((best, c, i) => (c > chances[best]! ? i : best), 0),
  };
}

/** Rows of a low-rank factor of the joint covariance of the active cells (pivoted Cholesky), rescaled to the exact variances. */
function jointFactor(
  field: FilmField,
  { points, multiplier }: PanelGrid,
  predicted: Prediction,
  active: readonly number[],
  removal_m: number,
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
    const row = field.covariances(points, predicted, active, active[pivot]!);
    const localPivot = local2 * multiplier[active[pivot]!]!;
    for (let i = 0; i < n; i++) {
      const [x, y] = points[active[i]!]!;
      row[i]! += localPivot * multiplier[active[i]!]! * matern52(Math.sqrt((x - px) ** 2 + (y - py) ** 2), length_m);
    }
    for (const f of factor) {
      const at = f[pivot]!;
      for (let i = 0; i < n; i++) row[i]! -= f[i]! * at;
    }
    for (let i = 0; i < n; i++) {
      row[i]! /= root;
      residual[i] = Math.max(0, residual[i]! - row[i]! ** 2);
    }
    factor.push(row);
  }
  const kept = new Float64Array(n);
  for (const f of factor) for (let i = 0; i < n; i++) kept[i]! += f[i]! ** 2;
  for (const f of factor) for (let i = 0; i < n; i++) f[i]! *= kept[i]! > 0 ? Math.sqrt(diagonal[i]! / kept[i]!) : 0;
  return factor;
}

function drawPanels(
  { removal_m, u_removal_m }: PanelRiskInput,
  { mean_m, multiplier }: { mean_m: Float64Array; multiplier: Float64Array },
  factor: readonly Float64Array[],
  events: readonly EventCells[],
  { draws, seed }: { draws: number; seed: number },
): { failed: number; allowed: Float64Array }[] {
  const n = mean_m.length;
  const pairs = Math.ceil(draws / 2);
  const normal = normals(seededRandom(seed));
  const out = events.map(() => ({ failed: 0, allowed: new Float64Array(2 * pairs) }));
  const buffers = events.map((e) => new Float64Array(e.rank + 1));
  const wave = new Float64Array(n);
  const zeros = new Float64Array(n);
  for (let d = 0; d < pairs; d++) {
    wave.fill(0);
    // Four rows at a time: a quarter of the reads and writes of the wave, which is what this loop waits for.
    for (let r = 0; r < factor.length; r += 4) {
      const [a, b, c, e] = [factor[r]!, factor[r + 1] ?? zeros, factor[r + 2] ?? zeros, factor[r + 3] ?? zeros];
      const [wa, wb, wc, we] = [normal(), normal(), normal(), normal()];
      for (let i = 0; i < n; i++) wave[i]! += wa * a[i]! + wb * b[i]! + wc * c[i]! + we * e[i]!;
    }
    const e = normal();
    for (let sign = 1; sign >= -1; sign -= 2) {
      const slot = 2 * d + (sign === 1 ? 0 : 1);
      const error_m = sign * u_removal_m * e;
      events.forEach(({ floor_m, cells }, k) => {
        const buffer = buffers[k]!;
        const rank = buffer.length - 1;
        buffer.fill(Infinity);
        // The rank-th smallest room over the cells, kept in a short sorted buffer: rank is at most 2 % of the cells.
        let below = 0;
        for (let q = 0; q < cells.length; q++) {
          const i = cells[q]!;
          const m = multiplier[i]!;
          const film = mean_m[i]! + sign * wave[i]! - floor_m;
          if (film < m * (removal_m + error_m)) below++;
          const room = film / m;
          if (room >= buffer[rank]!) continue;
          let at = rank;
          for (; at > 0 && buffer[at - 1]! > room; at--) buffer[at] = buffer[at - 1]!;
          buffer[at] = room;
        }
        if (below > rank) out[k]!.failed++;
        out[k]!.allowed[slot] = buffer[rank]! - error_m;
      });
    }
  }
  return out;
}
