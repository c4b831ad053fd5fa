import fc from "fast-check";
import { type Point, edgeDistance, gridInside, isInside, polygonArea, requirePolygon, innermost } from "#core/kernel/geometry/geometry";
import { placeInWords } from "#core/kernel/geometry/place-in-words";
import { SHAPES, SHAPE_KINDS, ownShape, panelShape, suggestSpots } from "#core/kernel/geometry/shapes";

const square: Point[] = [
  [0, 0],
  [1, 0],
  [1, 1],
  [0, 1],
];

test("area, inside and edge distance of a unit square", () => {
  expect(polygonArea(square)).toBe(1);
  expect(isInside([0.5, 0.5], square)).toBe(true);
  expect(isInside([1.5, 0.5], square)).toBe(false);
  expect(edgeDistance([0.5, 0.25], square)).toBe(0.25);
  expect(edgeDistance([2, 0.5], square)).toBe(1);
  expect(gridInside(square, { nx: 4, ny: 3 })).toHaveLength(12);
});

test("turning the outline round does not change what lies inside", () => {
  fc.assert(
    fc.property(fc.double({ min: -0.5, max: 1.5, noNaN: true }), fc.double({ min: -0.5, max: 1.5, noNaN: true }), (x, y) => {
      const turned = [...square].reverse();
      expect(isInside([x, y], turned)).toBe(isInside([x, y], square));
      expect(edgeDistance([x, y], turned)).toBeCloseTo(edgeDistance([x, y], square), 12);
    }),
  );
});

test.each(SHAPE_KINDS)("%s: closed outline of the wanted size, spots on it, half of them round the rim", (kind) => {
  const [width_m, height_m] = SHAPES[kind].size_m;
  const shape = panelShape(kind, { width_m, height_m });
  const xs = shape.outline.map((p) => p[0]);
  const ys = shape.outline.map((p) => p[1]);
  expect(Math.max(...xs) - Math.min(...xs)).toBeCloseTo(width_m, 9);
  expect(Math.max(...ys) - Math.min(...ys)).toBeCloseTo(height_m, 9);
  expect(polygonArea(shape.outline)).toBeGreaterThan(0.5 * width_m * height_m);
  const spots = suggestSpots(shape.outline, 8);
  expect(spots).toHaveLength(8);
  expect(new Set(spots.map(String)).size).toBe(8);
  expect(spots.every((p) => isInside(p, shape.outline))).toBe(true);
  const deep = 0.15 * Math.min(width_m, height_m);
  expect(spots.filter((p) => edgeDistance(p, shape.outline) > deep).length).toBeGreaterThanOrEqual(3);
});

test("an own outline is moved to the origin; too few corners or no area is refused", () => {
  expect(
    ownShape([
      [2, 3],
      [3, 3],
      [3, 4],
    ]).outline[0],
  ).toEqual([0, 0]);
  expect(() => requirePolygon("corners", square.slice(0, 2))).toThrow("corners must have at least 3 corners, got 2");
  expect(() =>
    ownShape([
      [0, 0],
      [1, 0],
      [2, 0],
    ]),
  ).toThrow("enclose an area");
  expect(() => ownShape([...square.slice(0, 3), [NaN, 1]])).toThrow("corners[3].x");
  expect(() => panelShape("door", { width_m: 0, height_m: 1 })).toThrow("width_m");
});

test("places are called as a painter would", () => {
  const bonnet = panelShape("bonnet", { width_m: 1.4, height_m: 1.2 });
  expect(placeInWords([0.7, 0.6], bonnet)).toBe("middle");
  expect(placeInWords([0.25, 1.1], bonnet)).toBe("front edge, left end");
  expect(placeInWords([0.7, 0.03], bonnet)).toBe("windscreen edge");
});

test("the mark starts on the panel, whatever its shape (once in a wing's wheel arch)", () => {
  for (const kind of SHAPE_KINDS) {
    const [width_m, height_m] = SHAPES[kind].size_m;
    const { outline } = panelShape(kind, { width_m, height_m });
    expect({ kind, on: isInside(innermost(outline), outline) }).toEqual({ kind, on: true });
  }
  const square: Point[] = [
    [0, 0],
    [1, 0],
    [1, 1],
    [0, 1],
  ];
  expect(innermost(square)).toEqual([0.5, 0.5]);
});
