import { requireInteger, requireNumber } from "../guard";
import { type Point, type Polygon, boundingBox, edgeDistance, edgeDistances, gridInside, isInside, requirePolygon } from "./geometry";

type Unit = readonly (readonly [number, number])[];
interface ShapeDef {
  name: string;
  /** Corner points in a 1 × 1 box, y down; rounded when sampled. */
  outline: Unit;
  bodyLines: readonly Unit[];
  size_m: readonly [number, number];
  /** What the four sides are called in words: top, right, bottom, left. */
  sides: readonly [string, string, string, string];
}

const sidesOnCar = ["top edge", "rear edge", "lower edge", "front edge"] as const;
const arch = (cx: number, top: number, half: number): Unit => [
  [cx + half, 0.99],
  [cx + half * 0.97, top + (1 - top) * 0.52],
  [cx + half * 0.62, top + (1 - top) * 0.12],
  [cx, top],
  [cx - half * 0.62, top + (1 - top) * 0.12],
  [cx - half * 0.97, top + (1 - top) * 0.52],
  [cx - half, 0.99],
];

/** Outlines of usual parts, drawn by us in general proportions; no maker's part. */
export const SHAPES = {
  bonnet: {
    name: "Bonnet",
    outline: [
      [0.015, 0.07],
      [0.25, 0.018],
      [0.5, 0],
      [0.75, 0.018],
      [0.985, 0.07],
      [1, 0.34],
      [0.965, 0.72],
      [0.9, 0.92],
      [0.7, 0.985],
      [0.5, 1],
      [0.3, 0.985],
      [0.1, 0.92],
      [0.035, 0.72],
      [0, 0.34],
    ],
    bodyLines: [
      [
        [0.2, 0.03],
        [0.24, 0.45],
        [0.31, 0.975],
      ],
      [
        [0.8, 0.03],
        [0.76, 0.45],
        [0.69, 0.975],
      ],
    ],
    size_m: [1.4, 1.2],
    sides: ["windscreen edge", "right edge", "front edge", "left edge"],
  },
  door: {
    name: "Door",
    outline: [
      [0.02, 0.1],
      [0.08, 0.02],
      [0.98, 0],
      [1, 0.08],
      [0.985, 0.5],
      [0.95, 0.98],
      [0.5, 1],
      [0.09, 0.985],
      [0.02, 0.75],
      [0, 0.4],
    ],
    bodyLines: [
      [
        [0.01, 0.3],
        [0.5, 0.27],
        [0.99, 0.25],
      ],
      [
        [0.03, 0.8],
        [0.96, 0.77],
      ],
    ],
    size_m: [1.1, 0.7],
    sides: sidesOnCar,
  },
  wing: {
    name: "Wing",
    outline: [[0.01, 0.16], [0.3, 0.04], [0.97, 0], [1, 0.12], [0.99, 0.99], ...arch(0.5, 0.42, 0.32), [0.03, 0.9], [0, 0.5]],
    bodyLines: [
      [
        [0.02, 0.34],
        [0.5, 0.26],
        [0.99, 0.24],
      ],
    ],
    size_m: [0.9, 0.65],
    sides: sidesOnCar,
  },
  quarter: {
    name: "Rear quarter",
    outline: [
      [0, 0.02],
      [0.3, 0],
      [0.6, 0.15],
      [0.95, 0.19],
      [1, 0.32],
      [0.985, 0.8],
      [0.93, 0.97],
      ...arch(0.48, 0.46, 0.3),
      [0.03, 0.985],
    ],
    bodyLines: [
      [
        [0.01, 0.36],
        [0.5, 0.33],
        [0.99, 0.36],
      ],
    ],
    size_m: [1.3, 0.8],
    sides: sidesOnCar,
  },
  roof: {
    name: "Roof",
    outline: [
      [0.05, 0.03],
      [0.5, 0],
      [0.95, 0.03],
      [1, 0.5],
      [0.96, 0.97],
      [0.5, 1],
      [0.04, 0.97],
      [0, 0.5],
    ],
    bodyLines: [],
    size_m: [1.2, 1.5],
    sides: ["windscreen edge", "right edge", "rear edge", "left edge"],
  },
  bootLid: {
    name: "Boot lid",
    outline: [
      [0.03, 0.05],
      [0.5, 0],
      [0.97, 0.05],
      [1, 0.5],
      [0.95, 0.98],
      [0.5, 1],
      [0.05, 0.98],
      [0, 0.5],
    ],
    bodyLines: [
      [
        [0.015, 0.62],
        [0.5, 0.66],
        [0.985, 0.62],
      ],
    ],
    size_m: [1.2, 0.6],
    sides: ["window edge", "right edge", "lower edge", "left edge"],
  },
  bumper: {
    name: "Bumper",
    outline: [
      [0, 0.22],
      [0.09, 0.06],
      [0.5, 0],
      [0.91, 0.06],
      [1, 0.22],
      [0.975, 0.82],
      [0.86, 0.96],
      [0.5, 1],
      [0.14, 0.96],
      [0.025, 0.82],
    ],
    bodyLines: [
      [
        [0.02, 0.46],
        [0.5, 0.4],
        [0.98, 0.46],
      ],
    ],
    size_m: [1.8, 0.5],
    sides: ["top edge", "right edge", "lower edge", "left edge"],
  },
  tank: {
    name: "Tank",
    outline: [
      [0, 0.55],
      [0.07, 0.2],
      [0.28, 0.03],
      [0.52, 0],
      [0.82, 0.3],
      [1, 0.72],
      [0.92, 0.95],
      [0.5, 1],
      [0.14, 0.95],
    ],
    bodyLines: [
      [
        [0.05, 0.62],
        [0.5, 0.5],
        [0.95, 0.78],
      ],
    ],
    size_m: [0.55, 0.32],
    sides: ["top edge", "rear edge", "lower edge", "front edge"],
  },
  mirrorCap: {
    name: "Mirror cap",
    outline: [
      [0.04, 0.3],
      [0.28, 0.03],
      [0.82, 0],
      [1, 0.24],
      [0.95, 0.8],
      [0.72, 1],
      [0.2, 0.95],
      [0, 0.7],
    ],
    bodyLines: [],
    size_m: [0.22, 0.16],
    sides: ["top edge", "right edge", "lower edge", "left edge"],
  },
  jamb: {
    name: "Shut or jamb",
    outline: [
      [0.012, 0.12],
      [0.03, 0],
      [0.97, 0],
      [0.988, 0.12],
      [1, 0.5],
      [0.988, 0.88],
      [0.97, 1],
      [0.03, 1],
      [0.012, 0.88],
      [0, 0.5],
    ],
    bodyLines: [],
    size_m: [1.1, 0.14],
    sides: ["outer edge", "rear end", "inner edge", "front end"],
  },
} as const satisfies Record<string, ShapeDef>;
export type ShapeKind = keyof typeof SHAPES;
export const SHAPE_KINDS = Object.keys(SHAPES) as [ShapeKind, ...ShapeKind[]];

export interface PanelShape {
  kind: ShapeKind | "own";
  outline: Point[];
  bodyLines: Point[][];
  sides: readonly [string, string, string, string];
}

const CORNER_STEPS = 6;
/** Rounds every corner by a quadratic curve between the points a third along its two sides. */
function rounded(points: Unit): [number, number][] {
  return points.flatMap((b, i) => {
    const a = points[(i + points.length - 1) % points.length]!;
    const c = points[(i + 1) % points.length]!;
    const from = [b[0] + (a[0] - b[0]) * 0.4, b[1] + (a[1] - b[1]) * 0.4] as const;
    const to = [b[0] + (c[0] - b[0]) * 0.4, b[1] + (c[1] - b[1]) * 0.4] as const;
    return Array.from({ length: CORNER_STEPS + 1 }, (_, s): [number, number] => {
      const t = s / CORNER_STEPS;
      const mix = (k: 0 | 1) => (1 - t) ** 2 * from[k] + 2 * t * (1 - t) * b[k] + t * t * to[k];
      return [mix(0), mix(1)];
    });
  });
}

/** Outline of a usual part at a size. @throws RangeError for a size outside 50 mm…6 m. */
export function panelShape(kind: ShapeKind, { width_m, height_m }: { width_m: number; height_m: number }): PanelShape {
  requireNumber("width_m", width_m, { min: 0.05, max: 6 });
  requireNumber("height_m", height_m, { min: 0.05, max: 6 });
  const def: ShapeDef = SHAPES[kind];
  const raw = rounded(def.outline);
  const box = boundingBox(raw);
  const place = ([x, y]: readonly [number, number]): Point => [
    ((x - box.x0) / (box.x1 - box.x0)) * width_m,
    ((y - box.y0) / (box.y1 - box.y0)) * height_m,
  ];
  return { kind, outline: raw.map(place), bodyLines: def.bodyLines.map((l) => l.map(place)), sides: def.sides };
}

/** An outline of the user's own, moved so that its box starts at the origin. @throws RangeError for fewer than 3 corners or no area. */
export function ownShape(corners: Polygon): PanelShape {
  requirePolygon("corners", corners);
  const { x0, y0 } = boundingBox(corners);
  return {
    kind: "own",
    outline: corners.map(([x, y]): Point => [x - x0, y - y0]),
    bodyLines: [],
    sides: ["top edge", "right edge", "lower edge", "left edge"],
  };
}

/** From this many places on, some of them lie on the body lines. */
const WITH_LINES = 12;
const LINE_SHARE = 0.2;

/**
 * First places to measure: half of them round the rim, where film is thin, half inside, and with twelve and more a fifth on the body
 * lines; each part spread by farthest-point choice, then ordered row by row in a path that turns at each end, as the hand goes.
 * @throws RangeError when count is outside 1…60
 */
export function suggestSpots(
  outline: Polygon,
  count: number,
  { rim_m = 0.03, bodyLines = [] }: { rim_m?: number; bodyLines?: readonly (readonly Point[])[] } = {},
): Point[] {
  requireInteger("count", count, { min: 1, max: 60 });
  const inside = gridInside(requirePolygon("outline", outline), { nx: 40, ny: 34 }).map((c) => c.point);
  const edges = edgeDistances(inside, outline);
  const cells = inside.map((at, i) => ({ at, edge_m: edges[i]! }));
  const { x0, y0, x1, y1 } = boundingBox(outline);
  const deep_m = 0.16 * Math.min(x1 - x0, y1 - y0);
  const inner = cells.filter((c) => c.edge_m >= deep_m).map((c) => c.at);
  const rim = cells.filter((c) => c.edge_m >= Math.min(rim_m, deep_m / 2) && c.edge_m < deep_m).map((c) => c.at);
  const middle: Point = [(x0 + x1) / 2, (y0 + y1) / 2];
  const onLines = count >= WITH_LINES ? alongLines(bodyLines).filter((p) => isInside(p, outline) && edgeDistance(p, outline) >= rim_m) : [];
  const lined = spreadOver(onLines, [], Math.round(LINE_SHARE * count), middle);
  const rest = count - lined.length;
  const within = spreadOver(inner.length ? inner : inside, lined, Math.ceil(rest / 2), middle);
  const chosen = [...lined, ...within];
  chosen.push(...spreadOver(rim.length ? rim : inside, chosen, count - chosen.length, middle));
  const rows = Math.max(1, Math.round(Math.sqrt((count * (y1 - y0)) / (x1 - x0))));
  const rowOf = (p: Point) => Math.min(rows - 1, Math.floor(((p[1] - y0) / (y1 - y0)) * rows));
  return chosen
    .map((p): Point => [Math.round(p[0] * 1000) / 1000, Math.round(p[1] * 1000) / 1000])
    .sort((a, b) => rowOf(a) - rowOf(b) || (rowOf(a) % 2 ? b[0] - a[0] : a[0] - b[0]));
}

/** Places along lines, twelve to each straight piece. */
function alongLines(lines: readonly (readonly Point[])[]): Point[] {
  const steps = 12;
  return lines.flatMap((line) =>
    line.slice(1).flatMap(([bx, by], i) => {
      const [ax, ay] = line[i]!;
      return Array.from({ length: steps }, (_, k): Point => [ax + ((bx - ax) * (k + 0.5)) / steps, ay + ((by - ay) * (k + 0.5)) / steps]);
    }),
  );
}

/** Farthest-point choice from a pool, away from what is taken already; the first is the one nearest the middle. */
function spreadOver(pool: readonly Point[], taken: readonly Point[], count: number, middle: Point): Point[] {
  const gap = (a: Point, b: Point) => Math.hypot(a[0] - b[0], a[1] - b[1]);
  const nearest = pool.map((p) => Math.min(Infinity, ...taken.map((t) => gap(p, t))));
  const chosen: Point[] = [];
  while (chosen.length < Math.min(count, pool.length)) {
    const best =
      chosen.length + taken.length === 0
        ? pool.reduce((a, p, i) => (gap(p, middle) < gap(pool[a]!, middle) ? i : a), 0)
        : nearest.indexOf(Math.max(...nearest));
    const point = pool[best]!;
    chosen.push(point);
    pool.forEach((p, i) => (nearest[i] = Math.min(nearest[i]!, gap(p, point))));
  }
  return chosen;
}
