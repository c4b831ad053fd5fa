import { requireNumber } from "../guard";

/** Metres from the panel's top left corner as it hangs on the drawing: x to the right, y down. */
export type Point = readonly [x_m: number, y_m: number];
export type Polygon = readonly Point[];

/** Checked outline: at least three corners, finite, area above zero. @throws RangeError */
export function requirePolygon(name: string, polygon: Polygon): Polygon {
  if (polygon.length < 3) throw new RangeError(`${name} must have at least 3 corners, got ${polygon.length}`);
  polygon.forEach(([x, y], i) => {
    requireNumber(`${name}[${i}].x`, x, { min: -50, max: 50 });
    requireNumber(`${name}[${i}].y`, y, { min: -50, max: 50 });
  });
  if (!(polygonArea(polygon) > 1e-6)) throw new RangeError(`${name} must enclose an area above 1 mm²`);
  return polygon;
}

/** Area by the shoelace sum, m². */
export function polygonArea(polygon: Polygon): number {
  let twice = 0;
  polygon.forEach(([x, y], i) => {
    const [nx, ny] = polygon[(i + 1) % polygon.length]!;
    twice += x * ny - nx * y;
  });
  return Math.abs(twice) / 2;
}

/** Length of an open line, m. */
export function lineLength(line: readonly Point[]): number {
  return line.slice(1).reduce((a, [x, y], i) => a + Math.hypot(x - line[i]![0], y - line[i]![1]), 0);
}

/** Length of the outline all the way round, m. */
export const polygonPerimeter = (polygon: Polygon): number => lineLength([...polygon, polygon[0]!]);

/** Whether a point lies inside (even–odd rule). */
export function isInside([x, y]: Point, polygon: Polygon): boolean {
  let inside = false;
  for (let i = 0, j = polygon.length - 1; i < polygon.length; j = i++) {
    const [x1, y1] = polygon[i]!;
    const [x2, y2] = polygon[j]!;
    if (y1 > y !== y2 > y && x < ((x2 - x1) * (y - y1)) / (y2 - y1) + x1) inside = !inside;
  }
  return inside;
}

/** Distance from a point to the nearest part of the outline, m (never negative, also outside). */
export function edgeDistance(at: Point, polygon: Polygon): number {
  return edgeDistances([at], polygon)[0]!;
}

/** The same of many points at once. */
export function edgeDistances(points: readonly Point[], polygon: Polygon): Float64Array {
  return nearest(points, [[...polygon, polygon[0]!]]);
}

/** Upper left corner at nought, y downwards. */
export const rectangle = (width_m: number, height_m: number): Polygon => [
  [0, 0],
  [width_m, 0],
  [width_m, height_m],
  [0, height_m],
];

/** Distances from points to the nearest of several open lines, m; Infinity when there is none. */
export function lineDistances(points: readonly Point[], lines: readonly (readonly Point[])[]): Float64Array {
  return nearest(points, lines);
}

function nearest(points: readonly Point[], lines: readonly (readonly Point[])[]): Float64Array {
  const pieces = lines.reduce((a, l) => a + Math.max(0, l.length - 1), 0);
  const s = new Float64Array(5 * pieces); // ax, ay, dx, dy, 1/length² (0 for a point) of each straight piece
  let k = 0;
  for (const line of lines)
    for (let i = 1; i < line.length; i++, k += 5) {
      const [ax, ay] = line[i - 1]!;
      const dx = line[i]![0] - ax;
      const dy = line[i]![1] - ay;
      const length2 = dx * dx + dy * dy;
      s.set([ax, ay, dx, dy, length2 > 0 ? 1 / length2 : 0], k);
    }
  const out = new Float64Array(points.length);
  for (let p = 0; p < points.length; p++) {
    const [px, py] = points[p]!;
    let best = Infinity;
    for (let i = 0; i < s.length; i += 5) {
      const x = px - s[i]!;
      const y = py - s[i + 1]!;
      const along = (x * s[i + 2]! + y * s[i + 3]!) * s[i + 4]!;
      const t = along < 0 ? 0 : along > 1 ? 1 : along;
      const ex = x - t * s[i + 2]!;
      const ey = y - t * s[i + 3]!;
      const d = ex * ex + ey * ey;
      if (d < best) best = d;
    }
    out[p] = Math.sqrt(best);
  }
  return out;
}

export function boundingBox(polygon: Polygon): { x0: number; y0: number; x1: number; y1: number } {
  const xs = polygon.map((p) => p[0]);
  const ys = polygon.map((p) => p[1]);
  return { x0: Math.min(...xs), y0: Math.min(...ys), x1: Math.max(...xs), y1: Math.max(...ys) };
}

export interface GridCell {
  point: Point;
  column: number;
  row: number;
}

/** Centres of the nx × ny cells of the bounding box that lie inside, in row-major order. */
export function gridInside(polygon: Polygon, { nx = 60, ny = 50 } = {}): GridCell[] {
  const { x0, y0, x1, y1 } = boundingBox(polygon);
  const cells: GridCell[] = [];
  for (let row = 0; row < ny; row++)
    for (let column = 0; column < nx; column++) {
      const point: Point = [x0 + ((column + 0.5) * (x1 - x0)) / nx, y0 + ((row + 0.5) * (y1 - y0)) / ny];
      if (isInside(point, polygon)) cells.push({ point, column, row });
    }
  return cells;
}

/** The middle of a shape where that lies on it; else the place farthest from every edge. @throws RangeError for a bad outline */
export function innermost(outline: Polygon): Point {
  const { x0, y0, x1, y1 } = boundingBox(outline);
  const middle: Point = [(x0 + x1) / 2, (y0 + y1) / 2];
  if (isInside(middle, outline)) return middle;
  const places = gridInside(outline, { nx: 24, ny: 20 }).map((c) => c.point);
  if (places.length === 0) return outline[0]!;
  const edges = edgeDistances(places, outline);
  return places[edges.indexOf(Math.max(...edges))]!;
}
