import { edgeDistance, rectangle } from "#core/kernel/geometry/geometry";
import { panelShape } from "#core/kernel/geometry/shapes";
import { USUAL_ROWS, rowsOver } from "#core/models/spray/row-plan";
import { strokesOf } from "#core/models/spray/strokes";
import type { FilmConditions } from "./panel-film";
import { type PathCoat, pathCell, plannedPath } from "./planned-path";

const DAY: FilmConditions = { air_K: 295.15, speed: "medium", volumeSolids: 0.475, reducer: 0, airSpeed_m_s: 0.3, tilt_rad: Math.PI / 2 };
const COAT: PathCoat = {
  gun: { fluidRate_m3_s: 230e-6 / 60, pressure_Pa: 28 * 6894.757, distance_m: 0.175 },
  handSpeed_m_s: 0.34,
  overlap: 0.5,
  trigger: "released",
  turn_s: 0.6,
  flash_s: 600,
};
const PART = rectangle(0.8, 0.6);
const COARSE = { cell_m: 0.02 };

test("rows of a second coat between those of the first: the same film, more even", () => {
  const plain = plannedPath(PART, DAY, [COAT, COAT], COARSE);
  const staggered = plannedPath(PART, DAY, [COAT, { ...COAT, rows: { ...USUAL_ROWS, first_m: 0.0625 } }], COARSE);
  const middle = ({ film }: typeof plain) => {
    const column = Array.from(
      { length: film.rows },
      (_, j) => film.solids_m[j * film.columns + 20]! + film.fixed_m[j * film.columns + 20]!,
    );
    const inner = column.slice(8, -8);
    return (Math.max(...inner) - Math.min(...inner)) / (inner.reduce((a, b) => a + b, 0) / inner.length);
  };
  expect(middle(staggered)).toBeLessThan(0.6 * middle(plain));
  expect(Math.abs(staggered.mean_m / plain.mean_m - 1)).toBeLessThan(0.1);
});

test("the least film lies at an edge or a corner; a first row beyond the edge mends it and costs material", () => {
  const usual = plannedPath(PART, DAY, [COAT], COARSE);
  const edgesFirst = plannedPath(PART, DAY, [{ ...COAT, rows: { ...USUAL_ROWS, first_m: -0.0625 } }], COARSE);
  expect(edgeDistance([usual.least.x_m, usual.least.y_m], PART)).toBeLessThan(0.05);
  expect(usual.least.film_m).toBeLessThan(0.6 * usual.mean_m);
  expect(edgesFirst.volume_m3).toBeGreaterThan(usual.volume_m3);
  const atTop = ({ film }: typeof usual) => film.solids_m[20]! + film.fixed_m[20]!;
  expect(atTop(edgesFirst)).toBeGreaterThan(1.1 * atTop(usual));
});

test("litres and time are those of the strokes; the trigger held through the turns adds what the turns let go", () => {
  for (const outline of [PART, panelShape("door", { width_m: 1.1, height_m: 0.75 }).outline])
    for (const trigger of ["released", "held"] as const) {
      const { volume_m3, time_s } = plannedPath(outline, DAY, [{ ...COAT, trigger }], COARSE);
      const strokes = strokesOf(rowsOver(outline, { fan_m: 0.25, overlap: 0.5 }), { handSpeed_m_s: 0.34, trigger });
      expect(volume_m3 / (COAT.gun.fluidRate_m3_s * strokes.trigger_s)).toBeCloseTo(1, 9);
      expect(time_s / strokes.time_s).toBeCloseTo(1, 3);
    }
});

test("a path that begins with a later coat lays the rows of that coat", () => {
  const rows = { ...USUAL_ROWS, even: true, staggered: true };
  for (const number of [1, 2]) {
    const strokes = strokesOf(rowsOver(PART, { fan_m: 0.25, overlap: 0.5 }, rows, number), { handSpeed_m_s: 0.34 });
    const { volume_m3 } = plannedPath(PART, DAY, [{ ...COAT, rows, number }], COARSE);
    expect(volume_m3 / (COAT.gun.fluidRate_m3_s * strokes.trigger_s)).toBeCloseTo(1, 9);
  }
});

test("a slow hand is likely to run, a quick one is not; lying nothing runs", () => {
  const chance = (handSpeed_m_s: number, tilt_rad = DAY.tilt_rad) =>
    plannedPath(PART, { ...DAY, tilt_rad }, [{ ...COAT, handSpeed_m_s }], COARSE).run.chance;
  expect(chance(0.14)).toBeGreaterThan(0.5);
  expect(chance(0.5)).toBeLessThan(0.1);
  expect(chance(0.14, 0)).toBeLessThan(1e-6);
});

test("a part off the origin is the same part; progress is told; no coats is no path", () => {
  const shares: number[] = [];
  const here = plannedPath(PART, DAY, [COAT, COAT], { ...COARSE, onProgress: (s) => shares.push(s) });
  const there = plannedPath(
    PART.map(([x, y]) => [x + 1, y - 2] as const),
    DAY,
    [COAT, COAT],
    COARSE,
  );
  expect(shares).toEqual([0.5, 1]);
  expect(there.mean_m / here.mean_m).toBeCloseTo(1, 9);
  expect(there.least.x_m - 1).toBeCloseTo(here.least.x_m, 9);
  expect(there.least.y_m + 2).toBeCloseTo(here.least.y_m, 9);
  expect(() => plannedPath(PART, DAY, [])).toThrow("coats");
  expect(pathCell(rectangle(0.1, 0.1))).toBe(0.005);
  expect(pathCell(rectangle(3, 2))).toBe(0.02);
});
