import { dryFilm } from "../models/panel-film/panel-film";
import { plannedPath, type PathFilm } from "../models/panel-film/planned-path";
import { fanOf } from "../models/spray/deposit";
import { rowsOver } from "../models/spray/row-plan";
import { type Pass, coatVolume, strokesOf } from "../models/spray/strokes";
import type { CoatsAsked } from "./coats-ahead";
import { type PathAhead, type PathSet, pathAhead } from "./path-ahead";

/** What a path over a panel leaves, for drawing: cells on the part only. */
export interface PathView
  extends
    Pick<PathFilm, "mean_m" | "cv" | "least" | "most" | "run" | "volume_m3" | "time_s" | "landedShare">,
    Pick<PathAhead, "middle_m" | "u_middle_m" | "laid" | "placesOnly"> {
  /** Cells from left to right and from above down over `box`; `index` says which of them are on the part, in the order of the figures. */
  nx: number;
  ny: number;
  box: { x0: number; x1: number; y0: number; y1: number };
  index: number[];
  film_m: Float64Array;
  runChance: Float64Array;
  coats: PathCoatView[];
}
export interface PathCoatView {
  number: number;
  fan_m: number;
  passes: Pass[];
  volume_m3: number;
  time_s: number;
}

/** The film of a path. @param options side of its cells where it is not that of a map; progress */
export const filmOfPath = (
  { outline, conditions, coats, shop, u_filmLog }: PathAhead,
  options: Pick<NonNullable<Parameters<typeof plannedPath>[3]>, "cell_m" | "onProgress"> = {},
): PathFilm => plannedPath(outline, conditions, coats, { shop, u_filmLog, ...options });

/** The film, the litres and the rows of a path; null where it cannot be worked out. @throws RangeError for rows out of range */
export function pathView(asked: CoatsAsked, set: PathSet, onProgress?: (share: number) => void): PathView | null {
  const path = pathAhead(asked, set);
  if (!path) return null;
  const { outline, coats } = path;
  const film = filmOfPath(path, onProgress ? { onProgress } : {});
  const { columns, rows, cell_m, inside } = film.film;
  const index = Array.from({ length: columns * rows }, (_, c) => c).filter((c) => inside[c] === 1);
  const { x_m: x0, y_m: y0 } = film.origin;
  const { mean_m, cv, least, most, run, volume_m3, time_s, landedShare } = film;
  const { middle_m, u_middle_m, laid, placesOnly } = path;
  return {
    ...{ mean_m, cv, least, most, run, volume_m3, time_s, landedShare, middle_m, u_middle_m, laid, placesOnly },
    nx: columns,
    ny: rows,
    box: { x0, x1: x0 + columns * cell_m, y0, y1: y0 + rows * cell_m },
    index,
    film_m: Float64Array.from(index, (c) => dryFilm(film.film, c)),
    runChance: Float64Array.from(index, (c) => film.runChance[c]!),
    coats: coats.map(({ gun, overlap, rows: plan, number, ...hand }) => {
      const fan_m = fanOf(gun);
      const passes = rowsOver(outline, { fan_m, overlap }, plan, number);
      const strokes = strokesOf(passes, hand);
      return { number, fan_m, passes, volume_m3: coatVolume(strokes, gun.fluidRate_m3_s), time_s: strokes.time_s };
    }),
  };
}
