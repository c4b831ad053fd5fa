import { type Polygon, boundingBox, isInside } from "../../kernel/geometry/geometry";
import type { ShopFactors } from "../flow/simulate-coats";
import { type FaceCurve, type FilmConditions, type PanelFilm, panelFilm } from "./panel-film";

export interface PlaceOnPanel {
  x_m: number;
  y_m: number;
}

/** Cells over a part, and where on its outline their upper left corner lies. */
export interface FilmOnPart {
  film: PanelFilm;
  origin: PlaceOnPanel;
}

/** Side of a cell for so many of them over a part's box, within what is asked. */
export function cellFor(outline: Polygon, cells: number, side_m: { min: number; max: number }): number {
  const { x0, y0, x1, y1 } = boundingBox(outline);
  return Math.min(side_m.max, Math.max(side_m.min, Math.sqrt(((x1 - x0) * (y1 - y0)) / cells)));
}

/** A bare part. @throws RangeError */
export function filmOnPart(
  outline: Polygon,
  cell_m: number,
  conditions: FilmConditions,
  shop?: ShopFactors,
  curve?: FaceCurve,
): FilmOnPart {
  const { x0, y0, x1, y1 } = boundingBox(outline);
  const inside = (x: number, y: number) => isInside([x + x0, y + y0], outline);
  return {
    film: panelFilm({ width_m: x1 - x0, height_m: y1 - y0, cell_m, inside, curve }, conditions, shop),
    origin: { x_m: x0, y_m: y0 },
  };
}

/** The cell of a place on the part; beside it the nearest of its box. */
export function cellAt({ film: { columns, rows, cell_m }, origin }: FilmOnPart, { x_m, y_m }: PlaceOnPanel): number {
  const within = (where_m: number, most: number) => Math.min(most - 1, Math.max(0, Math.floor(where_m / cell_m)));
  return within(y_m - origin.y_m, rows) * columns + within(x_m - origin.x_m, columns);
}

/** Where the middle of a cell lies on the part. */
export const placeOf = ({ film: { columns, cell_m }, origin }: FilmOnPart, cell: number): PlaceOnPanel => ({
  x_m: origin.x_m + ((cell % columns) + 0.5) * cell_m,
  y_m: origin.y_m + (Math.floor(cell / columns) + 0.5) * cell_m,
});
