import { bandsOf, cellAt, filled, stepsOf } from "~/kit/panel/bands";
import { riskAt, risksOf } from "./map-picture";
import type { PanelMap } from "#core/judge/panel-map";
import { gridInside } from "#core/kernel/geometry/geometry";
import type { Point } from "#core/kernel/geometry/geometry";

const outline: Point[] = [
  [0, 0],
  [1, 0],
  [1, 0.8],
  [0.5, 0.8],
  [0, 0.4],
];
const [nx, ny] = [20, 16];
const cells = gridInside(outline, { nx, ny });
const map = {
  nx,
  ny,
  box: { x0: 0, y0: 0, x1: 1, y1: 0.8 },
  index: Int32Array.from(cells, (c) => c.row * nx + c.column),
  mean_m: Float64Array.from(cells, (c) => 40e-6 + 30e-6 * c.point[0]),
  sd_m: Float64Array.from(cells, () => 4e-6),
  share: Float64Array.from(cells, (_, i) => (i === 0 ? 0 : 1)),
} as unknown as PanelMap;

test("cells outside the panel take the nearest value, those inside keep theirs", () => {
  const box = filled(map, map.mean_m);
  expect([...box].every(Number.isFinite)).toBe(true);
  map.index.forEach((at, i) => expect(box[at]).toBe(map.mean_m[i]));
  expect(Math.max(...box)).toBeLessThanOrEqual(Math.max(...map.mean_m));
});

test("bands lie where the film reaches their step, one a step, a number where there is room", () => {
  const bands = bandsOf(map, map.mean_m, [50e-6, 60e-6], outline);
  expect(bands.map((b) => b.from)).toEqual([50e-6, 60e-6]);
  for (const b of bands) {
    expect(b.path).toMatch(/^M/);
    // The film is 50 µm at x = 1/3 and 60 µm at x = 2/3; a path is in mm.
    const xs = [...b.path.matchAll(/[ML]([\d.]+) /g)].map((m) => Number(m[1]));
    const edge = 1000 * ((b.from * 1e6 - 40) / 30);
    expect(Math.abs(Math.min(...xs) - edge)).toBeLessThan(60);
  }
  expect(bands[0]!.label![0]).toBeCloseTo(1 / 3, 1);
});

test("steps are round, at most as many as there are colours, and lie within the layer", () => {
  expect(stepsOf(41e-6, 69e-6, 1e-6, 7).map((s) => Math.round(s * 1e6))).toEqual([45, 50, 55, 60, 65]);
  expect(stepsOf(2.1e-6, 2.6e-6, 1e-6, 7).length).toBeGreaterThan(1);
  for (const most of [3, 5, 7]) expect(stepsOf(10e-6, 200e-6, 1e-6, most).length).toBeLessThanOrEqual(most);
});

test("a place finds its cell, a place off the panel none; risk rises with removal and is none on the taped rim", () => {
  expect(cellAt(map, [0.02, 0.02])).toBe(0);
  expect(cellAt(map, [0.05, 0.75])).toBeNull(); // outside the slanted corner
  expect(cellAt(map, [-1, 0])).toBeNull();
  const removal = { removal_m: 10e-6, u_removal_m: 1e-6, floor_m: 35e-6 };
  const cell = cellAt(map, [0.3, 0.3])!;
  expect(riskAt(map, cell, { ...removal, removal_m: 20e-6 })).toBeGreaterThan(riskAt(map, cell, removal));
  expect(riskAt(map, 0, removal)).toBe(0);
  expect(risksOf(map, removal)[cell]).toBe(riskAt(map, cell, removal));
});
