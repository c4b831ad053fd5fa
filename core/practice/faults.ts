import { FLOW } from "../models/flow/constants";
import { LET_PASS } from "../models/panel-film/film-loss";
import { type FilmOnPart, type PlaceOnPanel, placeOf } from "../models/panel-film/over-part";
import { type PanelFilm, dryFilm, farthestSlide } from "../models/panel-film/panel-film";
import type { Skill } from "./mended";

/** A place where a film is at fault. */
export interface FilmFault extends PlaceOnPanel {
  kind: "run" | "thin";
  /** What of the hand it came of: done as it was wanted, it would not be there, or least of it. Null where nothing of the hand would have mended it. */
  cause: Skill | null;
  area_m2: number;
}

/** The same session with one thing of the hand as it was wanted. */
export interface Otherwise {
  skill: Skill;
  on: FilmOnPart;
}

/** A thin place smaller than this is an edge, no patch. Default of ours. */
const PATCH_M2 = 15e-4;
/** Around a place its film is looked at so far. */
const NEAR_M = 0.05;
/** What mends a fault takes at least so much of it away, as a share. */
const MENDS_SHARE = 0.3;

/** Runs and thin patches of a film, each with its cause. @param film_m of all coats as planned @param otherwise the same cells, sprayed otherwise */
export function faultsOn(on: FilmOnPart, film_m: number, otherwise: readonly Otherwise[]): FilmFault[] {
  const { film } = on;
  const area_m2 = (cells: readonly number[]) => cells.length * film.cell_m ** 2;
  const runs = hangTogether(film, (c) => ran(film, c)).map((cells) => ({
    kind: "run" as const,
    ...placeOf(on, farthest(film, cells)),
    area_m2: area_m2(cells),
  }));
  const isThin = (c: number) => film.inside[c] === 1 && dryFilm(film, c) < LET_PASS.thin * film_m;
  const thin = hangTogether(film, isThin)
    .map((cells) => ({ kind: "thin" as const, ...placeOf(on, middleOf(film, cells)), area_m2: area_m2(cells), cells }))
    .filter((f) => f.area_m2 >= PATCH_M2);
  const mends = (bad: (o: FilmOnPart) => number): Skill | null => {
    const was = bad(on);
    const best = otherwise.reduce<{ skill: Skill | null; left: number }>(
      (least, o) => (bad(o.on) < least.left ? { skill: o.skill, left: bad(o.on) } : least),
      { skill: null, left: (1 - MENDS_SHARE) * was },
    );
    return best.skill;
  };
  return [
    ...runs.map((f) => ({ ...f, cause: mends((o) => slideNear(o, f)) })),
    ...thin.map(({ cells, ...f }) => ({
      ...f,
      cause: mends((o) => cells.reduce((sum, c) => sum + Math.max(0, 1 - dryFilm(o.film, c) / film_m), 0)),
    })),
  ];
}

/** Each run once: where it slid farthest, and in which coat. */
export const runsOn = (on: FilmOnPart): (PlaceOnPanel & { coat: number })[] =>
  hangTogether(on.film, (c) => ran(on.film, c)).map((cells) => {
    const worst = farthest(on.film, cells);
    return { ...placeOf(on, worst), coat: on.film.coat[worst]! };
  });

const ran = (film: PanelFilm, c: number): boolean => film.inside[c] === 1 && farthestSlide(film, c) > FLOW.sagRun_m;
const farthest = (film: PanelFilm, cells: readonly number[]): number =>
  cells.reduce((worst, c) => (farthestSlide(film, c) > farthestSlide(film, worst) ? c : worst), cells[0]!);
const slideNear = ({ film, origin }: FilmOnPart, { x_m, y_m }: PlaceOnPanel): number => {
  const [i, j, reach] = [(x_m - origin.x_m) / film.cell_m, (y_m - origin.y_m) / film.cell_m, NEAR_M / film.cell_m];
  let most = 0;
  for (let r = Math.max(0, Math.floor(j - reach)); r < Math.min(film.rows, j + reach); r++)
    for (let k = Math.max(0, Math.floor(i - reach)); k < Math.min(film.columns, i + reach); k++) {
      const c = r * film.columns + k;
      if (film.inside[c] === 1) most = Math.max(most, farthestSlide(film, c));
    }
  return most;
};

/** Of cells that hang together the one nearest to where they lie in the mean: a patch round a corner still has a place of its own. */
function middleOf({ columns }: PanelFilm, cells: readonly number[]): number {
  const mean = (of: (c: number) => number) => cells.reduce((sum, c) => sum + of(c), 0) / cells.length;
  const [i, j] = [mean((c) => c % columns), mean((c) => Math.floor(c / columns))];
  const far = (c: number) => Math.hypot((c % columns) - i, Math.floor(c / columns) - j);
  return cells.reduce((best, c) => (far(c) < far(best) ? c : best), cells[0]!);
}

/** Cells of a kind, each lot that hangs together over their sides. */
function hangTogether({ columns, rows }: PanelFilm, is: (cell: number) => boolean): number[][] {
  const seen = new Uint8Array(columns * rows);
  const lots: number[][] = [];
  for (let start = 0; start < seen.length; start++) {
    if (seen[start] === 1 || !is(start)) continue;
    const lot = [start];
    seen[start] = 1;
    for (let k = 0; k < lot.length; k++) {
      const c = lot[k]!;
      const i = c % columns;
      for (const d of [i > 0 ? c - 1 : -1, i + 1 < columns ? c + 1 : -1, c - columns, c + columns])
        if (d >= 0 && d < seen.length && seen[d] === 0 && is(d)) {
          seen[d] = 1;
          lot.push(d);
        }
    }
    lots.push(lot);
  }
  return lots;
}
