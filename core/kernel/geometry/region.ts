import { type Point, type Polygon, boundingBox, gridInside, isInside } from "./geometry";

/** A part of a panel: whatever lies within one of these outlines. They may reach beyond the panel. */
export type Region = readonly Polygon[];

export const HALVES = { upper: "the upper half", lower: "the lower half", left: "the left half", right: "the right half" } as const;
export type Half = keyof typeof HALVES;

/** A half reaches so far beyond the panel: its rim belongs to it. */
const BEYOND_M = 0.01;

/** Half of a panel, as it lies on the drawing. */
export function halfOf(outline: Polygon, half: Half): Region {
  const own = boundingBox(outline);
  const [middle_x, middle_y] = [(own.x0 + own.x1) / 2, (own.y0 + own.y1) / 2];
  const box = { x0: own.x0 - BEYOND_M, y0: own.y0 - BEYOND_M, x1: own.x1 + BEYOND_M, y1: own.y1 + BEYOND_M };
  const [x0, x1] = half === "left" ? [box.x0, middle_x] : half === "right" ? [middle_x, box.x1] : [box.x0, box.x1];
  const [y0, y1] = half === "upper" ? [box.y0, middle_y] : half === "lower" ? [middle_y, box.y1] : [box.y0, box.y1];
  return [
    [
      [x0, y0],
      [x1, y0],
      [x1, y1],
      [x0, y1],
    ],
  ];
}

/** Whether a place lies in a region; every place does where there is none. */
export const inRegion = (at: Point, region: Region | null | undefined): boolean =>
  !region || region.some((outline) => isInside(at, outline));

/** Share of a panel's area that lies in a region, to about a thousandth; 1 where there is none. */
export function regionShare(outline: Polygon, region: Region | null): number {
  if (!region) return 1;
  const cells = gridInside(outline, { nx: 90, ny: 75 });
  return cells.length === 0 ? 0 : cells.filter((c) => inRegion(c.point, region)).length / cells.length;
}

/** Sampled so densely, a line's share in a region is known to a few millimetres. */
const SAMPLE_M = 0.004;

/** Points along an open line, no further from each other than asked for, its own among them. */
export function pointsAlong(line: readonly Point[], apart_m: number): Point[] {
  return line.flatMap((b, i): Point[] => {
    const a = line[i - 1];
    if (!a) return [b];
    const count = Math.max(1, Math.ceil(Math.hypot(b[0] - a[0], b[1] - a[1]) / apart_m));
    return Array.from({ length: count }, (_, k) => {
      const t = (k + 1) / count;
      return [a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1])];
    });
  });
}

/** Length of an open line that lies in a region, m. */
export function lengthWithin(line: readonly Point[], region: Region | null): number {
  let length_m = 0;
  for (let i = 1; i < line.length; i++) {
    const [a, b] = [line[i - 1]!, line[i]!];
    const piece_m = Math.hypot(b[0] - a[0], b[1] - a[1]);
    const count = Math.max(1, Math.ceil(piece_m / SAMPLE_M));
    if (!region) length_m += piece_m;
    else
      for (let k = 0; k < count; k++) {
        const t = (k + 0.5) / count;
        if (inRegion([a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1])], region)) length_m += piece_m / count;
      }
  }
  return length_m;
}

/** Corners of the circle that stands for a round place. */
const ROUND = 24;

/** A round place, and everything so far beyond a place that was drawn or pointed at: the outline of what is taken back. */
export function around(places: readonly Point[], beyond_m: number): Polygon {
  const ring = places.flatMap(([x, y]) =>
    Array.from({ length: ROUND }, (_, i): Point => {
      const angle = (2 * Math.PI * i) / ROUND;
      return [x + beyond_m * Math.cos(angle), y + beyond_m * Math.sin(angle)];
    }),
  );
  return convexHull(ring);
}

/** Smallest convex outline about points (Andrew's monotone chain). */
export function convexHull(points: readonly Point[]): Polygon {
  const sorted = [...points].sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  const turn = (o: Point, a: Point, b: Point) => (a[0] - o[0]) * (b[1] - o[1]) - (a[1] - o[1]) * (b[0] - o[0]);
  const half = (list: readonly Point[]) => {
    const chain: Point[] = [];
    for (const p of list) {
      while (chain.length > 1 && turn(chain.at(-2)!, chain.at(-1)!, p) <= 0) chain.pop();
      chain.push(p);
    }
    return chain.slice(0, -1);
  };
  return [...half(sorted), ...half([...sorted].reverse())];
}
