import { requireNumber } from "../../kernel/guard";
import { median } from "../../kernel/stats/summary";
import { type FilmOnPart, type PlaceOnPanel, placeOf } from "../../models/panel-film/over-part";
import { hardened } from "../../models/panel-film/panel-film";

/** A panel that has gone hard, as it is worked on: all its clear is fixed (`on.film.fixed_m`), what lies below is even. */
export interface CuredPanel {
  on: FilmOnPart;
  /** Clear as it lay before anything was done to it, m. */
  was_m: Float64Array;
  /** What was done to a cell: nothing, sanded, sanded through. */
  worked: Uint8Array;
  nibs: Nib[];
}

/** Dust that fell into the film while it was open: so far it stands out of it. */
export interface Nib extends PlaceOnPanel {
  height_m: number;
}

export const WORKED = { not: 0, sanded: 1, through: 2 } as const;

/** All of a bench's film goes hard. @param nibs that fell on it */
export function curedPanel(on: FilmOnPart, nibs: readonly Nib[] = []): CuredPanel {
  hardened(on.film);
  return { on, was_m: on.film.fixed_m.slice(), worked: new Uint8Array(on.film.inside.length), nibs: nibs.map((nib) => ({ ...nib })) };
}

/** Cells of the part within a box around a place, and how far each lies from its middle. @throws RangeError */
export function cellsAround(
  { film: { columns, rows, cell_m, inside }, origin }: FilmOnPart,
  { x_m, y_m }: PlaceOnPanel,
  [halfX_m, halfY_m]: readonly [number, number],
): { cell: number; dx_m: number; dy_m: number }[] {
  const [x, y] = [requireNumber("x_m", x_m) - origin.x_m, requireNumber("y_m", y_m) - origin.y_m];
  const found: { cell: number; dx_m: number; dy_m: number }[] = [];
  const from = (at: number) => Math.max(0, Math.ceil(at / cell_m - 0.5));
  const to = (at: number, most: number) => Math.min(most - 1, Math.floor(at / cell_m - 0.5));
  for (let j = from(y - halfY_m); j <= to(y + halfY_m, rows); j++)
    for (let i = from(x - halfX_m); i <= to(x + halfX_m, columns); i++) {
      const cell = j * columns + i;
      if (inside[cell] === 1) found.push({ cell, dx_m: (i + 0.5) * cell_m - x, dy_m: (j + 0.5) * cell_m - y });
    }
  return found;
}

/** Around a run its crest is looked for so far; what stands out is told against the film within so much of it. */
const CREST_M = 0.06;
const BESIDE_M = 0.13;
/**
 * How far a film stands out near a place: most of what a cell lies above the middle (median) of the film around it, m. The film's own slow waves hardly
 * stand out, a run does. @param film_m of each cell
 */
export function ridgeAt(on: FilmOnPart, film_m: ArrayLike<number>, place: PlaceOnPanel): number {
  let most = 0;
  for (const { cell, dx_m, dy_m } of cellsAround(on, place, [CREST_M, CREST_M])) {
    if (Math.hypot(dx_m, dy_m) > CREST_M) continue;
    const at = placeOf(on, cell);
    const beside = cellsAround(on, at, [BESIDE_M, BESIDE_M]).filter((b) => Math.hypot(b.dx_m, b.dy_m) <= BESIDE_M);
    most = Math.max(most, film_m[cell]! - median(beside.map((b) => film_m[b.cell]!)));
  }
  return most;
}
