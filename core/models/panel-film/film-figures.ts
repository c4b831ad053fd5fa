import { FLOW } from "../flow/constants";
import { type PanelFilm, dryFilm, farthestSlide } from "./panel-film";

export interface FilmFigures {
  /** Film when every solvent has gone. */
  mean_m: number;
  cv: number;
  least_m: number;
  most_m: number;
  /** How far the surface has slid: in the middle of all cells, and most. */
  slideMiddle_m: number;
  slideMost_m: number;
  /** Share of the cells where it passes what makes a run. */
  runShare: number;
}

/**
 * Figures of the film over those cells of the panel that `of` keeps.
 * @throws RangeError where none is kept
 */
export function filmFigures(film: PanelFilm, of: (column: number, row: number) => boolean = () => true): FilmFigures {
  const films: number[] = [];
  const slides: number[] = [];
  for (let j = 0; j < film.rows; j++)
    for (let i = 0; i < film.columns; i++) {
      const c = j * film.columns + i;
      if (film.inside[c] === 0 || !of(i, j)) continue;
      films.push(dryFilm(film, c));
      slides.push(farthestSlide(film, c));
    }
  const n = films.length;
  if (n === 0) throw new RangeError("of must keep at least 1 cell, got 0");
  const mean_m = films.reduce((a, b) => a + b, 0) / n;
  slides.sort((a, b) => a - b);
  return {
    mean_m,
    cv: mean_m > 0 ? Math.sqrt(films.reduce((a, b) => a + (b - mean_m) ** 2, 0) / n) / mean_m : 0,
    least_m: films.reduce((a, b) => Math.min(a, b), Infinity),
    most_m: films.reduce((a, b) => Math.max(a, b), 0),
    slideMiddle_m: slides[n >> 1]!,
    slideMost_m: slides[n - 1]!,
    runShare: slides.filter((s) => s > FLOW.sagRun_m).length / n,
  };
}

/** Of a panel's cells those away from its edges: the inner three fifths of its width and half of its height. */
export const middleOf =
  ({ columns, rows }: Pick<PanelFilm, "columns" | "rows">) =>
  (i: number, j: number): boolean =>
    i > columns / 5 && i < (4 * columns) / 5 && j > rows / 4 && j < (3 * rows) / 4;
