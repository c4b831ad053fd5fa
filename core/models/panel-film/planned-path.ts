import { type Polygon, edgeDistances } from "../../kernel/geometry/geometry";
import { EDGE_FILM, runChance, sagAtEdge } from "../flow/run-chance";
import type { ShopFactors } from "../flow/simulate-coats";
import { type RowPlan, rowsOver } from "../spray/row-plan";
import type { Pass } from "../spray/strokes";
import type { Trigger } from "../spray/trigger";
import { SETTLES_S, STEP_S } from "./constants";
import { filmFigures } from "./film-figures";
import type { GunAtWork } from "./land";
import { type FilmOnPart, type PlaceOnPanel, cellFor, filmOnPart, placeOf } from "./over-part";
import { type FilmConditions, dryFilm, farthestSlide, hardened } from "./panel-film";
import { sprayRows, waitOn } from "./spray-rows";

/** One coat of a path: how the gun stands, how the hand goes, and the wait after it. */
export interface PathCoat {
  gun: GunAtWork;
  overlap: number;
  /** Where its rows lie; as usual where nobody has planned them. */
  rows?: RowPlan | undefined;
  /** Of the coat on its face, where the path does not begin with the first. */
  number?: number | undefined;
  handSpeed_m_s: number;
  trigger: Trigger;
  turn_s: number;
  /** Its own reducer, where it is not that of the conditions. */
  reducer?: number | undefined;
  /** The wait after it; null where it goes hard and is sanded before the next. */
  flash_s: number | null;
}

/** The film as it lies when nothing moves any more. */
export interface PathFilm extends FilmOnPart {
  mean_m: number;
  /** Standard deviation over the mean. */
  cv: number;
  least: PlaceOnPanel & { film_m: number };
  most: PlaceOnPanel & { film_m: number };
  /** Chance of a run in each cell, and where it is greatest. */
  runChance: Float64Array;
  run: PlaceOnPanel & { chance: number };
  /** Ready-to-spray material through the gun, share of its solids that landed, and how long the passes of all coats take. */
  volume_m3: number;
  landedShare: number;
  time_s: number;
}

/** Within this of the outline a cell lies at an edge, where passes and turns pile film up. As the film's own notes have it [D]. */
const EDGE_BAND_M = 0.03;
/** So many cells are enough for a map that is looked at. Default of ours. */
const CELLS = 6000;
const CELL_SIDE_M = { min: 0.005, max: 0.02 } as const;
/** Side of a cell with which a part is worked out in good time. */
export const pathCell = (outline: Polygon): number => cellFor(outline, CELLS, CELL_SIDE_M);

/** A pass as it lies from another origin. */
const passFrom = (pass: Pass, { x_m, y_m }: PlaceOnPanel): Pass => {
  const [along_m, across_m] = pass.turned ? [y_m, x_m] : [x_m, y_m];
  return { ...pass, x0_m: pass.x0_m - along_m, x1_m: pass.x1_m - along_m, y_m: pass.y_m - across_m };
};

/**
 * The film that a path leaves on a part, coat after coat: sprayed along its rows, flashed, settled.
 * @param options.cell_m side of a cell (`pathCell` without it) @param options.u_filmLog doubt of the film, for the chance of a run
 * @param options.onProgress share done, 0 to 1
 * @throws RangeError
 */
export function plannedPath(
  outline: Polygon,
  conditions: FilmConditions,
  coats: readonly PathCoat[],
  {
    cell_m = pathCell(outline),
    shop,
    u_filmLog,
    onProgress,
  }: { cell_m?: number; shop?: ShopFactors | undefined; u_filmLog?: number | undefined; onProgress?: (share: number) => void } = {},
): PathFilm {
  if (coats.length === 0) throw new RangeError("coats must have at least 1 member, got 0");
  const on = filmOnPart(outline, cell_m, conditions, shop);
  const { film, origin } = on;
  let time_s = 0;
  coats.forEach((coat, index) => {
    const { gun, handSpeed_m_s, trigger, turn_s, overlap, rows, number = index + 1, reducer } = coat;
    const hand = { handSpeed_m_s, turn_s, held: trigger === "held" };
    const passes = (fan_m: number) => rowsOver(outline, { fan_m, overlap }, rows, number).map((pass) => passFrom(pass, origin));
    const before_s = film.sums.time_s;
    sprayRows(film, gun, passes, hand, index + 1, reducer);
    time_s += film.sums.time_s - before_s;
    const isLast = index + 1 === coats.length;
    waitOn(film, isLast ? SETTLES_S : (coat.flash_s ?? SETTLES_S), 1, STEP_S.max);
    if (!isLast && coat.flash_s === null) hardened(film);
    onProgress?.((index + 1) / coats.length);
  });
  const { columns, rows, inside, sums } = film;
  const place = (c: number) => placeOf(on, c);
  const cells = Array.from({ length: columns * rows }, (_, c) => c).filter((c) => inside[c] === 1);
  const toEdge_m = edgeDistances(
    cells.map((c) => [place(c).x_m, place(c).y_m] as const),
    outline,
  );
  const chances = new Float64Array(columns * rows);
  cells.forEach((c, k) => {
    const slide_m = farthestSlide(film, c);
    chances[c] = runChance(toEdge_m[k]! < EDGE_BAND_M ? sagAtEdge(slide_m, EDGE_FILM) : slide_m, u_filmLog);
  });
  const first = (better: (a: number, b: number) => boolean) => cells.reduce((best, c) => (better(c, best) ? c : best), cells[0]!);
  const least = first((a, b) => dryFilm(film, a) < dryFilm(film, b));
  const most = first((a, b) => dryFilm(film, a) > dryFilm(film, b));
  const run = first((a, b) => chances[a]! > chances[b]!);
  const { mean_m, cv } = filmFigures(film);
  return {
    film,
    origin,
    mean_m,
    cv,
    least: { ...place(least), film_m: dryFilm(film, least) },
    most: { ...place(most), film_m: dryFilm(film, most) },
    runChance: chances,
    run: { ...place(run), chance: chances[run]! },
    volume_m3: sums.used_m3,
    landedShare: sums.landed_m3 / sums.sprayed_m3,
    time_s,
  };
}
