import { middleOf, sizeOf, traceText } from "./use-trace";

const square = [
  [0.1, 0.1],
  [0.3, 0.1],
  [0.3, 0.2],
  [0.1, 0.2],
] as const;

test("a line is as long as it was drawn, an area as far as it reaches; points have no size", () => {
  expect(sizeOf({ as: "line", points: square })!.length_m).toBeCloseTo(0.5, 12);
  const area = sizeOf({ as: "area", points: square })!;
  expect([area.length_m, area.width_m, area.area_m2].map((v) => v!.toFixed(3))).toEqual(["0.200", "0.100", "0.020"]);
  expect(sizeOf({ as: "area", points: square.slice(0, 2) })).toBeNull();
  expect(sizeOf({ as: "points", points: square })).toBeNull();
});

test("the middle stands for the whole drawing; a single place is no drawing", () => {
  expect(middleOf({ as: "area", points: square })!.map((v) => v.toFixed(2))).toEqual(["0.20", "0.15"]);
  expect(middleOf({ as: "line", points: square })).toEqual([0.3, 0.1]);
  expect(middleOf({ as: "line", points: [] })).toBeNull();
  expect(traceText({ as: "point", points: square.slice(0, 1) })).toBe("");
  expect(JSON.parse(traceText({ as: "points", points: square.slice(0, 1) }))).toEqual({ as: "points", at: [{ x_m: 0.1, y_m: 0.1 }] });
});
