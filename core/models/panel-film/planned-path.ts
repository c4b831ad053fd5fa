import { type Polygon, boundingBox, edgeDistances, isInside } from "../../kernel/geometry/geometry";
import { EDGE_FILM, runChance, sagAtEdge } from "../flow/run-chance";
import type { ShopFactors } from "../flow/simulate-coats";
import { passesOver, type RowsOver } from "../spray/strokes";
import type { Trigger } from "../spray/trigger";
import { filmFigures } from "./film-figures";
import type { GunAtWork } from "./land";
import { type FilmConditions, type PanelFilm, dryFilm, farthestSlide, hardened, panelFilm } from "./panel-film";
import { sprayRows, waitOn } from "./spray-rows";

/** One coat of a path: how the gun stands, how the hand goes, and the wait after it. */
export interface PathCoat extends Omit<RowsOver, "fan_m"> {
  gun: GunAtWork;
  handSpeed_m_s: number;
  trigger: Trigger;
  turn_s: number;
  /** Its own reducer, where it is not that of the conditions. */
  reducer?: number | undefined;
  /** The wait after it; null where it goes hard and is sanded before the next. */
  flash_s: number | null;
}

export interface PlaceOnPanel {
  x_m: number;
  y_m: number;
}

export interface PathFilm {
  /** The film as it lies when nothing moves any more, in square cells from the upper left corner of the part's box. */
  film: PanelFilm;
  origin: PlaceOnPanel;
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
/** After the last coat: by then nothing moves. */
const SETTLES_S = 3600;

/** Side of a cell with which a part is worked out in good time. */
export function cellFor(outline: Polygon): number {
  const { x0, y0, x1, y1 } = boundingBox(outline);
  const side_m = Math.sqrt(((x1 - x0) * (y1 - y0)) / CELLS);
  return Math.min(CELL_SIDE_M.max, Math.max(CELL_SIDE_M.min, side_m));
}

/**
 * The film that a path leaves on a part, coat after coat: sprayed along its rows, flashed, settled.
 * @param options.cell_m side of a cell (`cellFor` without it) @param options.u_filmLog doubt of the film, for the chance of a run
 * @param options.onProgress share done, 0 to 1
 * @throws RangeError
 */
export function plannedPath(
  outline: Polygon,
  conditions: FilmConditions,
  coats: readonly PathCoat[],
  {
    cell_m = cellFor(outline),
    shop,
    u_filmLog,
    onProgress,
  }: { cell_m?: number; shop?: ShopFactors | undefined; u_filmLog?: number | undefined; onProgress?: (share: number) => void } = {},
): PathFilm {
  if (coats.length === 0) throw new RangeError("coats must have at least 1 member, got 0");
  const { x0, y0, x1, y1 } = boundingBox(outline);
  const film = panelFilm(
    { width_m: x1 - x0, height_m: y1 - y0, cell_m, inside: (x, y) => isInside([x + x0, y + y0], outline) },
    conditions,
    shop,
  );
  let time_s = 0;
  coats.forEach((coat, index) => {
    const { gun, handSpeed_m_s, trigger, turn_s, overlap, overrun_m, first_m, reducer } = coat;
    const hand = { handSpeed_m_s, turn_s, held: trigger === "held" };
    const passes = (fan_m: number) =>
      passesOver(outline, {
        fan_m,
        overlap,
        ...(overrun_m === undefined ? {} : { overrun_m }),
        ...(first_m === undefined ? {} : { first_m }),
      }).map((p) => ({ x0_m: p.x0_m - x0, x1_m: p.x1_m - x0, y_m: p.y_m - y0 }));
    const before_s = film.sums.time_s;
    sprayRows(film, gun, passes, hand, index + 1, reducer);
    time_s += film.sums.time_s - before_s;
    waitOn(film, index + 1 < coats.length ? (coat.flash_s ?? SETTLES_S) : SETTLES_S);
    if (coat.flash_s === null) hardened(film);
    onProgress?.((index + 1) / coats.length);
  });
  const { columns, rows, inside, sums } = film;
  const place = (c: number): PlaceOnPanel => ({
    x_m: x0 + ((c % columns) + 0.5) * cell_m,
    y_m: y0 + (Math.floor(c / columns) + 0.5) * cell_m,
  });
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
    origin: { x_m: x0, y_m: y0 },
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
