import type { FilmField, Prediction } from "../models/film/film-field";
import { matern52 } from "../models/film/matern";
import { normals, seededRandom } from "../kernel/stats/random";
import { LOCAL_UNEVENNESS } from "../models/correction/unevenness";
import { inRegion } from "../kernel/geometry/region";
import type { FilmFacts } from "./film-facts";
import type { PictureCells } from "./judge-cells";

/**
 * Panels that may be: for each draw the clear in every judged cell, how much harder than on average the hand takes off there, and the error
 * that all of its work has in common. None of it depends on how much is taken off: one set answers every question.
 */
export interface FilmDraws {
  count: number;
  cells: number;
  /** Draw by draw, `cells` each. */
  film_m: Float32Array;
  /** Removal there against the flat's: 1 + 0.15·ε. */
  uneven: Float32Array;
  /** Standard normal, one a draw: of the work on the whole panel, and of the work at single places. */
  panelError: Float32Array;
  localError: Float32Array;
}

/** Rows kept of a covariance, and the share of variance that may be left out (what is kept is rescaled to the exact variances). */
const KEEP = { film: { rank: 200, residual: 0.006 }, uneven: { rank: 80, residual: 0.05 } } as const;
/** Less than this of a flat's removal comes off nowhere: a normal error has no end, a hand has. */
const LEAST_BITE = 0.1;

/** Low-rank factor of a covariance by pivoted Cholesky, rescaled to the exact variances: one row a factor. */
function lowRank(
  variance: Float64Array,
  columnOf: (pivot: number) => Float64Array,
  { rank, residual: share }: { rank: number; residual: number },
): Float64Array[] {
  const n = variance.length;
  const residual = variance.slice();
  const tolerance = share * Math.max(...variance);
  const factor: Float64Array[] = [];
  while (factor.length < rank) {
    let pivot = 0;
    for (let i = 1; i < n; i++) if (residual[i]! > residual[pivot]!) pivot = i;
    if (residual[pivot]! <= tolerance) break;
    const row = columnOf(pivot);
    for (const f of factor) {
      const at = f[pivot]!;
      for (let i = 0; i < n; i++) row[i]! -= f[i]! * at;
    }
    const root = Math.sqrt(residual[pivot]!);
    for (let i = 0; i < n; i++) {
      row[i]! /= root;
      residual[i] = Math.max(0, residual[i]! - row[i]! ** 2);
    }
    factor.push(row);
  }
  const kept = new Float64Array(n);
  for (const f of factor) for (let i = 0; i < n; i++) kept[i]! += f[i]! ** 2;
  for (const f of factor) for (let i = 0; i < n; i++) f[i]! *= kept[i]! > 0 ? Math.sqrt(variance[i]! / kept[i]!) : 0;
  return factor;
}

/**
 * Waves made together, and rows of a factor taken together: sixteen products for each four rows read, which is what this loop waits for.
 * So many pairs also share one wave of the hand's unevenness, which is a small part of the doubt and would cost as much to draw as the film.
 */
const TOGETHER = 4;

/** Normals for one wave, as many as a factor has rows, filled up with nothing to whole groups of rows. */
function weightsOf(rows: number, normal: () => number): Float64Array {
  const weights = new Float64Array(TOGETHER * Math.ceil(rows / TOGETHER));
  for (let r = 0; r < rows; r++) weights[r] = normal();
  return weights;
}

type Four = readonly [Float64Array, Float64Array, Float64Array, Float64Array];

/** Adds factor · weights to each of four waves. */
function addWaves(waves: Four, factor: readonly Float64Array[], weights: Four, zeros: Float64Array): void {
  for (let r = 0; r < factor.length; r += TOGETHER)
    addRows(waves, [factor[r]!, factor[r + 1] ?? zeros, factor[r + 2] ?? zeros, factor[r + 3] ?? zeros], weights, r);
}

/** Four rows of a factor; a function of its own, so that it is compiled within the first draws. */
function addRows([p, q, s, t]: Four, [a, b, c, e]: Four, [wp, wq, ws, wt]: Four, r: number): void {
  const [pa, pb, pc, pe] = [wp[r]!, wp[r + 1]!, wp[r + 2]!, wp[r + 3]!];
  const [qa, qb, qc, qe] = [wq[r]!, wq[r + 1]!, wq[r + 2]!, wq[r + 3]!];
  const [sa, sb, sc, se] = [ws[r]!, ws[r + 1]!, ws[r + 2]!, ws[r + 3]!];
  const [ta, tb, tc, te] = [wt[r]!, wt[r + 1]!, wt[r + 2]!, wt[r + 3]!];
  for (let i = 0; i < p.length; i++) {
    const ai = a[i]!;
    const bi = b[i]!;
    const ci = c[i]!;
    const ei = e[i]!;
    p[i]! += pa * ai + pb * bi + pc * ci + pe * ei;
    q[i]! += qa * ai + qb * bi + qc * ci + qe * ei;
    s[i]! += sa * ai + sb * bi + sc * ci + se * ei;
    t[i]! += ta * ai + tb * bi + tc * ci + te * ei;
  }
}

/** One draw written out: the wave on the mean, and how the hand bites. */
function writeDraw(
  out: Pick<FilmDraws, "film_m" | "uneven">,
  from: number,
  { mean_m, pool, wave, hand }: Record<"mean_m" | "pool" | "wave" | "hand", Float64Array>,
  { begin, sign, share }: { begin: number; sign: number; share: number },
): void {
  const { film_m, uneven } = out;
  for (let i = 0; i < mean_m.length; i++) {
    const mean = mean_m[i]!;
    film_m[from + i] = (mean + sign * (mean * pool[begin + i]! + wave[i]!)) * share;
    const bite = 1 + sign * hand[i]!;
    uneven[from + i] = bite < LEAST_BITE ? LEAST_BITE : bite;
  }
}

/**
 * Normals that stand for what differs from cell to cell: one pool for all draws, each beginning elsewhere in it. Its beginning stands once more at
 * its end, so that no draw has to wrap.
 */
const WAVER = 16_381;
const GOLDEN = (Math.sqrt(5) - 1) / 2;
function waver(seed: number, { cells, own }: { cells: number; own: number }): Float64Array {
  const normal = normals(seededRandom(seed + 1));
  const pool = new Float64Array(WAVER + cells);
  for (let i = 0; i < WAVER; i++) pool[i] = own * normal();
  pool.copyWithin(WAVER, 0, cells);
  return pool;
}

/**
 * Draws of one history: antithetic and seeded, so that the same readings always give the same answer.
 * @param at cells of the picture that are judged @param filmError error of the whole film's scale, a share of it
 * @param uneven what each cell's film differs by on its own, a share of it
 */
export function drawFilm(
  {
    field,
    predicted,
    picture,
    at,
    steps = [],
  }: { field: FilmField; predicted: Prediction; picture: PictureCells; at: Int32Array; steps?: FilmFacts["steps"] },
  { pairs, seed, filmError, uneven: own }: { pairs: number; seed: number; filmError: number; uneven: number },
): FilmDraws {
  const cells = at.length;
  const places = Array.from(at);
  const points = places.map((i) => picture.points[i]!);
  const { length_m } = field.prior;
  const there = steps.map((s) => ({ within: points.map((p) => inRegion(p, s.region)), variance: s.u_m ** 2 }));
  const film = lowRank(
    Float64Array.from(at, (i) => predicted.sd_m[i]! ** 2),
    (pivot) => {
      const column = field.covariances(picture.points, predicted, places, places[pivot]!);
      for (const s of there) if (s.within[pivot]) for (let i = 0; i < cells; i++) if (s.within[i]) column[i]! += s.variance;
      return column;
    },
    KEEP.film,
  );
  const uneven = lowRank(
    new Float64Array(cells).fill(LOCAL_UNEVENNESS ** 2),
    (pivot) => {
      const [px, py] = points[pivot]!;
      return Float64Array.from(points, ([x, y]) => LOCAL_UNEVENNESS ** 2 * matern52(Math.sqrt((x - px) ** 2 + (y - py) ** 2), length_m));
    },
    KEEP.uneven,
  );
  const normal = normals(seededRandom(seed));
  const pool = waver(seed, { cells, own });
  const count = 2 * pairs;
  const out: FilmDraws = {
    count,
    cells,
    film_m: new Float32Array(count * cells),
    uneven: new Float32Array(count * cells),
    panelError: new Float32Array(count),
    localError: new Float32Array(count),
  };
  const mean_m = Float64Array.from(at, (i) => predicted.mean_m[i]!);
  const zeros = new Float64Array(cells);
  const fourOf = (make: () => Float64Array): Four => [make(), make(), make(), make()];
  const waves = fourOf(() => new Float64Array(cells));
  const hands = fourOf(() => new Float64Array(cells));
  // Blocks of four pairs for the film; of the hand's unevenness each four pairs share one wave, so a block of it serves four of those.
  for (let block = 0; block < pairs; block += TOGETHER) {
    const turn = (block / TOGETHER) % TOGETHER;
    if (turn === 0) {
      for (const hand of hands) hand.fill(0);
      const weights = fourOf(() => weightsOf(uneven.length, normal));
      addWaves(hands, uneven, weights, zeros);
    }
    for (const wave of waves) wave.fill(0);
    const weights = fourOf(() => weightsOf(film.length, normal));
    addWaves(waves, film, weights, zeros);
    const hand = hands[turn]!;
    for (let k = 0; k < TOGETHER && block + k < pairs; k++) {
      const d = block + k;
      const wave = waves[k]!;
      // Where in the pool a pair begins; with the golden ratio no two begin near each other.
      const begin = Math.floor(WAVER * ((d * GOLDEN) % 1));
      const [scale, panel, local] = [filmError * normal(), normal(), normal()];
      for (let half = 0; half < 2; half++) {
        const sign = half === 0 ? 1 : -1;
        writeDraw(out, (2 * d + half) * cells, { mean_m, pool, wave, hand }, { begin, sign, share: 1 + sign * scale });
        out.panelError[2 * d + half] = sign * panel;
        out.localError[2 * d + half] = sign * local;
      }
    }
  }
  return out;
}

/** Where and with what a removal is asked about, over the judged cells. */
export interface WorkedCells {
  /** How much of the flat's removal comes to each cell; 0: not worked. */
  share: Float64Array;
  /** Area of each cell. */
  weight: Float64Array;
  /** Relative error of the removal that all places share. */
  uRel: number;
  cutFloor_m: number;
  floor_m: number;
  areaShare: number;
}

function workedCells({ share, weight, areaShare }: Pick<WorkedCells, "share" | "weight" | "areaShare">) {
  const worked = Int32Array.from([...share.keys()].filter((i) => share[i]! > 0));
  const bite = Float64Array.from(worked, (i) => share[i]!);
  const area = Float64Array.from(worked, (i) => weight[i]!);
  return { worked, bite, area, most: areaShare * area.reduce((a, w) => a + w, 0) };
}

/**
 * Which draws a removal is too much for: 1 where any worked place ends below the one floor (`cut`), and where more than a share of the worked
 * area ends below the other (`thin`). The same as whether `allowedRemoval` allows less, without the sorting that takes.
 */
export function tooMuch(draws: FilmDraws, removal_m: number, o: WorkedCells): { cut: Float64Array; thin: Float64Array } {
  const { count, cells, film_m, uneven, panelError } = draws;
  const { cutFloor_m, floor_m } = o;
  const { worked, bite, area, most } = workedCells(o);
  const work: DrawnWork = { worked, area, taken: bite.map((b) => b * removal_m), cutFloor_m, floor_m, most };
  const cut = new Float64Array(count);
  const thin = new Float64Array(count);
  for (let d = 0; d < count; d++) {
    const over = overIn(film_m, uneven, d * cells, o.uRel * panelError[d]!, work);
    cut[d] = over & CUT ? 1 : 0;
    thin[d] = over & THIN ? 1 : 0;
  }
  return { cut, thin };
}

const CUT = 1;
const THIN = 2;

/** A removal at the cells that it comes to: what comes off at each before the hand's unevenness, its area, and the area that may be thin. */
interface DrawnWork {
  worked: Int32Array;
  area: Float64Array;
  taken: Float64Array;
  cutFloor_m: number;
  floor_m: number;
  most: number;
}

/** One draw, a function of its own: called so often that it is compiled within the first question. @returns CUT and THIN, or 0 */
function overIn(
  film_m: Float32Array,
  uneven: Float32Array,
  from: number,
  common: number,
  { worked, area, taken, cutFloor_m, floor_m, most }: DrawnWork,
): number {
  let least = Infinity;
  let below = 0;
  for (let q = 0; q < worked.length; q++) {
    const i = from + worked[q]!;
    let hand = uneven[i]! + common;
    if (hand < LEAST_BITE) hand = LEAST_BITE;
    const left = film_m[i]! - taken[q]! * hand;
    if (left < least) least = left;
    if (left < floor_m) below += area[q]!;
  }
  return (least < cutFloor_m ? CUT : 0) | (below > most ? THIN : 0);
}

/** Removal that each draw would allow: the one at which it becomes too much, for cutting through and for being too thin. */
export function allowedRemoval(draws: FilmDraws, o: WorkedCells): { cut: Float64Array; thin: Float64Array } {
  const { count, cells, film_m, uneven, panelError } = draws;
  const { cutFloor_m, floor_m } = o;
  const { worked, bite, area, most } = workedCells(o);
  const n = worked.length;
  const cut = new Float64Array(count);
  const thin = new Float64Array(count);
  const rooms = new Float64Array(n);
  const areas = new Float64Array(n);
  for (let d = 0; d < count; d++) {
    const from = d * cells;
    const common = o.uRel * panelError[d]!;
    let least = Infinity;
    for (let q = 0; q < n; q++) {
      const i = from + worked[q]!;
      let hand = uneven[i]! + common;
      if (hand < LEAST_BITE) hand = LEAST_BITE;
      const perFilm = 1 / (bite[q]! * hand);
      const film = film_m[i]!;
      rooms[q] = (film - floor_m) * perFilm;
      const room = (film - cutFloor_m) * perFilm;
      if (room < least) least = room;
    }
    cut[d] = least;
    areas.set(area);
    thin[d] = smallestBeyond(rooms, areas, most);
  }
  return { cut, thin };
}

/** The smallest value up to which the weights add up to more than a limit: by halving (Hoare), in place. */
function smallestBeyond(values: Float64Array, weights: Float64Array, limit: number): number {
  let low = 0;
  let high = values.length - 1;
  let before = 0; // weight of all left of `low`
  while (low < high) {
    const pivot = values[(low + high) >> 1]!;
    let i = low;
    let j = high;
    let left = 0;
    while (i <= j) {
      while (values[i]! < pivot) left += weights[i++]!;
      while (values[j]! > pivot) j--;
      if (i > j) break;
      const [v, w] = [values[i]!, weights[i]!];
      values[i] = values[j]!;
      weights[i] = weights[j]!;
      values[j] = v;
      weights[j] = w;
      left += weights[i]!;
      i++;
      j--;
    }
    // Left of `i` lies what is at most the pivot.
    if (before + left > limit)
      high = i - 1; // at least one less: the first exchange leaves something not below the pivot at its right end
    else {
      before += left;
      low = i;
    }
  }
  return values[low]!;
}
