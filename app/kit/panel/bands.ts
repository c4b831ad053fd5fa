import { contours } from "d3-contour";
import { type Point, type Polygon, edgeDistances, isInside } from "#core/kernel/geometry/geometry";
import { svgPath } from "~/kit/ui/svg-path";

/** Cells of a panel from left to right and from above down over a box; `index` says which of them are on it, in the order of the figures. */
export interface PanelCells {
  nx: number;
  ny: number;
  index: Int32Array | readonly number[];
  box: { x0: number; x1: number; y0: number; y1: number };
}

/** The whole nx × ny box from the cells inside: those outside take the nearest value, so that a band does not end before the edge. */
export function filled(map: Pick<PanelCells, "nx" | "ny" | "index">, cells: Float64Array): Float64Array {
  const { nx, ny, index } = map;
  const box = new Float64Array(nx * ny).fill(NaN);
  index.forEach((at, i) => (box[at] = cells[i]!));
  let front = Array.from(index);
  while (front.length > 0) {
    const next: number[] = [];
    for (const at of front) {
      const x = at % nx;
      const neighbours = [x > 0 ? at - 1 : -1, x < nx - 1 ? at + 1 : -1, at - nx, at + nx];
      for (const to of neighbours)
        if (to >= 0 && to < nx * ny && Number.isNaN(box[to])) {
          box[to] = box[at]!;
          next.push(to);
        }
    }
    front = next;
  }
  return box;
}

export interface Band {
  from: number;
  path: string;
  /** A place on its border where its number can stand, m; null where the border hugs the panel's edge. */
  label: Point | null;
}

/** Nearer to the panel's edge a number on a border cannot be read. */
const LABEL_EDGE_M = 0.05;

/** Bands of a layer as paths in mm, one for each step: everything at or above it. */
export function bandsOf(map: PanelCells, cells: Float64Array, steps: readonly number[], outline: Polygon): Band[] {
  const { nx, ny, box } = map;
  const x = (gx: number) => box.x0 + (gx * (box.x1 - box.x0)) / nx;
  const y = (gy: number) => box.y0 + (gy * (box.y1 - box.y0)) / ny;
  const draw = contours()
    .size([nx, ny])
    .thresholds([...steps]);
  return draw(Array.from(filled(map, cells))).map((c) => ({
    from: c.value,
    path: c.coordinates.flatMap((rings) => rings.map((ring) => `${svgPath(ring.map(([gx, gy]): Point => [x(gx!), y(gy!)]))}Z`)).join(""),
    label: labelPlace(
      c.coordinates.flat(2).map(([gx, gy]): Point => [x(gx!), y(gy!)]),
      outline,
    ),
  }));
}

/** The place of a border that lies deepest in the panel. */
function labelPlace(border: readonly Point[], outline: Polygon): Point | null {
  const inside = border.filter((p) => isInside(p, outline));
  if (inside.length === 0) return null;
  const depth = edgeDistances(inside, outline);
  const best = depth.indexOf(Math.max(...depth));
  return depth[best]! > LABEL_EDGE_M ? inside[best]! : null;
}

/** Round steps between the least and the most of a layer: at most one fewer than the ramp has colours. */
export function stepsOf(low: number, high: number, unit: number, most: number): number[] {
  const choices = [0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 50, 100, 200, 500];
  const size = (choices.find((s) => (high - low) / (s * unit) <= most - 1) ?? 1000) * unit;
  const first = Math.ceil(low / size) * size;
  return Array.from({ length: Math.max(0, Math.min(most, Math.floor((high - first) / size) + 1)) }, (_, i) => first + i * size);
}

/** The cell at a place, or null outside the panel. */
export function cellAt(map: PanelCells, [x, y]: Point): number | null {
  const { nx, ny, box } = map;
  const column = Math.floor(((x - box.x0) / (box.x1 - box.x0)) * nx);
  const row = Math.floor(((y - box.y0) / (box.y1 - box.y0)) * ny);
  if (column < 0 || row < 0 || column >= nx || row >= ny) return null;
  const found = map.index.indexOf(row * nx + column);
  return found < 0 ? null : found;
}
