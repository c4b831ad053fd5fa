import { filmLoss } from "../models/panel-film/film-loss";
import { cellFor } from "../models/panel-film/over-part";
import type { CoatsAsked } from "./coats-ahead";
import { type PathSet, pathAhead, pathNow } from "./path-ahead";
import { filmOfPath } from "./path-view";

/** A hand keeps up with these evenly: slower it dwells, quicker it swings. Common practice. */
export const EVEN_HAND_M_S = { min: 0.2, max: 0.6 } as const;
/** Trying needs fewer cells than looking. Default of ours. */
const CELLS = 900;
const SIDE_M = { min: 0.01, max: 0.05 } as const;
/** A path must be so much better than the one before it to be worth another habit. Default of ours. */
const WORTH = 0.98;

/** What may be set otherwise, and to what: one thing after the other, over and over until none helps. */
const CHOICES: readonly ((set: PathSet) => PathSet[])[] = [
  (set) => [true, false].map((even) => ({ ...set, rows: { ...set.rows, even } })),
  (set) => [true, false].map((turned) => ({ ...set, rows: { ...set.rows, turned } })),
  (set) => [0.5, 0.6, 0.67, 0.75].map((overlap) => sameFilm(set, overlap)),
  (set) => [-0.05, -0.02, 0, 0.03].map((first_m) => ({ ...set, rows: { ...set.rows, first_m } })),
  (set) => [true, false].map((staggered) => ({ ...set, rows: { ...set.rows, staggered } })),
  (set) => [true, false].map((endsFirst) => ({ ...set, rows: { ...set.rows, endsFirst } })),
  (set) => [0.05, 0.1, 0.15].map((overrun_m) => ({ ...set, rows: { ...set.rows, overrun_m } })),
];
const ROUNDS = 2;

/** Rows nearer to each other go quicker, so that the film stays: as far as a hand goes evenly. */
function sameFilm(set: PathSet, overlap: number): PathSet {
  const speed_m_s = (set.handSpeed_m_s * (1 - set.overlap)) / (1 - overlap);
  return { ...set, overlap, handSpeed_m_s: Math.min(EVEN_HAND_M_S.max, Math.max(EVEN_HAND_M_S.min, speed_m_s)) };
}

export interface BestPath {
  set: PathSet;
  /** So many were tried; 0 to 1 and beyond, none is perfect: what the one found and the one as it was fall short. */
  tried: number;
  loss: number;
  lossBefore: number;
}

/**
 * The path for this part, gun and hand that falls least short of the film wanted: even, nothing thin, nothing near a run, little wasted (`filmLoss`).
 * One thing is set otherwise at a time from the path as it is; null where that cannot be worked out. @throws RangeError
 */
export function bestPath(asked: CoatsAsked, from: PathSet = pathNow(asked), onProgress?: (share: number) => void): BestPath | null {
  const start = pathAhead(asked, from);
  if (!start) return null;
  const cell_m = cellFor(start.outline, CELLS, SIDE_M);
  const filmOf = (set: PathSet) => {
    const path = pathAhead(asked, set);
    return path && filmOfPath(path, { cell_m });
  };
  const before = filmOfPath(start, { cell_m });
  const wanted = { film_m: start.middle_m, volume_m3: before.volume_m3 };
  const known = new Map<string, number>();
  const most = ROUNDS * CHOICES.reduce((n, choice) => n + choice(from).length - 1, 0);
  const lossOf = (set: PathSet): number => {
    const key = JSON.stringify(set);
    const loss = known.get(key) ?? lossOfFilm(filmOf(set));
    known.set(key, loss);
    onProgress?.(Math.min(1, known.size / most));
    return loss;
  };
  const lossOfFilm = (film: ReturnType<typeof filmOf>) => (film ? filmLoss(film.film, wanted).total : Infinity);
  const lossBefore = lossOfFilm(before);
  known.set(JSON.stringify(from), lossBefore);
  let best = { set: from, loss: lossBefore };
  for (let round = 0; round < ROUNDS; round++) {
    const begun = best;
    for (const choice of CHOICES)
      for (const set of choice(best.set)) {
        const loss = lossOf(set);
        if (loss < WORTH * best.loss) best = { set, loss };
      }
    if (best === begun) break;
  }
  return { ...best, tried: known.size, lossBefore };
}
