import fc from "fast-check";
import { type Point, isInside, polygonArea, polygonPerimeter } from "./geometry";
import { type Half, HALVES, around, convexHull, halfOf, inRegion, lengthWithin, pointsAlong, regionShare } from "./region";
import { SHAPES, type ShapeKind, panelShape } from "./shapes";

const square: Point[] = [
  [0, 0],
  [1, 0],
  [1, 1],
  [0, 1],
];
const kinds = fc.constantFrom(...(Object.keys(SHAPES) as ShapeKind[]));
/** Marked to the millimetre. */
const point = fc.tuple(fc.integer({ min: 0, max: 2000 }), fc.integer({ min: 0, max: 2000 })).map(([x, y]): Point => [x / 1000, y / 1000]);

test("where no region is given everything lies in it", () => {
  expect(inRegion([5, 5], null)).toBe(true);
  expect(inRegion([5, 5], undefined)).toBe(true);
  expect(regionShare(square, null)).toBe(1);
  expect(lengthWithin([...square, square[0]!], null)).toBeCloseTo(4, 12);
});

test("an empty region holds nothing", () => {
  expect(inRegion([0.5, 0.5], [])).toBe(false);
  expect(regionShare(square, [])).toBe(0);
  expect(lengthWithin(square, [])).toBe(0);
});

test("two halves of any part are the whole of it, area and rim alike", () => {
  fc.assert(
    fc.property(kinds, (kind) => {
      const [width_m, height_m] = SHAPES[kind].size_m;
      const { outline } = panelShape(kind, { width_m, height_m });
      const rim = [...outline, outline[0]!];
      for (const [a, b] of [
        ["upper", "lower"],
        ["left", "right"],
      ] as const) {
        const both = [halfOf(outline, a), halfOf(outline, b)] as const;
        expect(regionShare(outline, both[0]) + regionShare(outline, both[1])).toBeCloseTo(1, 2);
        expect(lengthWithin(rim, both[0]) + lengthWithin(rim, both[1])).toBeCloseTo(polygonPerimeter(outline), 1);
      }
    }),
    { numRuns: 12 },
  );
});

test("a half of a square is a half of it, on the side it is named after", () => {
  const inside: Record<Half, Point> = { upper: [0.5, 0.2], lower: [0.5, 0.8], left: [0.2, 0.5], right: [0.8, 0.5] };
  for (const half of Object.keys(HALVES) as Half[]) {
    expect(regionShare(square, halfOf(square, half))).toBeCloseTo(0.5, 1);
    for (const [name, at] of Object.entries(inside)) {
      const opposite = { upper: "lower", lower: "upper", left: "right", right: "left" }[name];
      if (name === half) expect(inRegion(at, halfOf(square, half))).toBe(true);
      if (opposite === half) expect(inRegion(at, halfOf(square, half))).toBe(false);
    }
  }
});

test("points along a line lie on it, no further apart than asked for, its own corners among them", () => {
  const line: Point[] = [
    [0, 0],
    [0.3, 0],
    [0.3, 0.12],
  ];
  const points = pointsAlong(line, 0.05);
  for (const corner of line) expect(points).toContainEqual(corner);
  for (let i = 1; i < points.length; i++)
    expect(Math.hypot(points[i]![0] - points[i - 1]![0], points[i]![1] - points[i - 1]![1])).toBeLessThanOrEqual(0.05 + 1e-12);
  expect(points).toHaveLength(1 + 6 + 3);
  expect(pointsAlong([[1, 1]], 0.05)).toEqual([[1, 1]]);
  expect(pointsAlong([], 0.05)).toEqual([]);
});

test("what is taken back round a place is a circle, round two places a stadium (areas by their formulas)", () => {
  const r = 0.15;
  // A regular polygon of 24 corners has 24/2 · sin(2π/24) of r².
  expect(polygonArea(around([[1, 1]], r))).toBeCloseTo(12 * Math.sin(Math.PI / 12) * r * r, 10);
  const apart = 0.4;
  const stadium = polygonArea(
    around(
      [
        [1, 1],
        [1 + apart, 1],
      ],
      r,
    ),
  );
  expect(stadium).toBeCloseTo(12 * Math.sin(Math.PI / 12) * r * r + 2 * r * apart, 10);
});

test("every place that was marked lies well inside of what is taken back", () => {
  fc.assert(
    fc.property(fc.array(point, { minLength: 1, maxLength: 12 }), fc.double({ min: 0.02, max: 0.3, noNaN: true }), (places, beyond) => {
      const outline = around(places, beyond);
      for (const p of places) {
        expect(isInside(p, outline)).toBe(true);
        // Nothing nearer than the chord of the circle's polygon lies outside.
        for (let i = 0; i < 8; i++) {
          const angle = (2 * Math.PI * i) / 8;
          expect(isInside([p[0] + 0.97 * beyond * Math.cos(angle), p[1] + 0.97 * beyond * Math.sin(angle)], outline)).toBe(true);
        }
      }
    }),
  );
});

test("a hull is convex, holds its points and is the same for them in any order", () => {
  fc.assert(
    fc.property(fc.array(point, { minLength: 3, maxLength: 30 }), (points) => {
      const hull = convexHull(points);
      const turn = (o: Point, a: Point, b: Point) => (a[0] - o[0]) * (b[1] - o[1]) - (a[1] - o[1]) * (b[0] - o[0]);
      hull.forEach((p, i) => {
        if (hull.length > 2) expect(turn(p, hull[(i + 1) % hull.length]!, hull[(i + 2) % hull.length]!)).toBeGreaterThan(0);
      });
      expect(convexHull([...points].reverse())).toEqual(hull);
    }),
  );
});
