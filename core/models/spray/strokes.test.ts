import { readFileSync } from "node:fs";
import { type Polygon, boundingBox, rectangle } from "#core/kernel/geometry/geometry";
import { type RowPlan, USUAL_ROWS, rowsOver } from "./row-plan";
import type { Trigger } from "./trigger";
import { passAt } from "./pass-at";
import { coatVolume, placeOnPass, strokesOf } from "./strokes";

/** Material that the reference program of the spray simulation uses on its own rows (230 ml/min, 0.34 m/s, fan 0.25 m, half covered again). */
const reference = JSON.parse(readFileSync("core/models/spray/testing/strokes-reference.json", "utf8")) as {
  name: string;
  width_m: number;
  height_m: number;
  released_ml: number;
  held_ml: number;
}[];
const HAND = { fan_m: 0.25, overlap: 0.5, handSpeed_m_s: 0.34 };
const strokesOver = (outline: Polygon, hand: typeof HAND & { trigger?: Trigger }, rows?: RowPlan) =>
  strokesOf(rowsOver(outline, hand, rows), hand);
const FLUID = 230e-6 / 60;
test("twelve parts from mirror cap to van side, both triggers", () => expect(reference).toHaveLength(12));
test.each(reference)(
  "$name: within 5 % of the reference program, trigger let go and held",
  ({ width_m, height_m, released_ml, held_ml }) => {
    const of = (trigger: "released" | "held") => 1e6 * coatVolume(strokesOver(rectangle(width_m, height_m), { ...HAND, trigger }), FLUID);
    expect(Math.abs(of("released") / released_ml - 1)).toBeLessThan(0.05);
    expect(Math.abs(of("held") / held_ml - 1)).toBeLessThan(0.05);
  },
);

test("a mirror cap takes three times what its area says, with the trigger held more than four: most flies past", () => {
  const byArea = (0.22 * 0.16 * 28e-6) / 0.475 / 0.65;
  const times = (trigger: "released" | "held") => coatVolume(strokesOver(rectangle(0.22, 0.16), { ...HAND, trigger }), FLUID) / byArea;
  expect(times("released")).toBeCloseTo(2.97, 2);
  expect(times("held")).toBeGreaterThan(4);
});

test("over a wheel arch a row is two strokes, over a narrow slot it is one", () => {
  const arch = (gap: number) =>
    [
      [0, 0],
      [1.2, 0],
      [1.2, 0.8],
      [0.6 + gap / 2, 0.8],
      [0.6 + gap / 2, 0.4],
      [0.6 - gap / 2, 0.4],
      [0.6 - gap / 2, 0.8],
      [0, 0.8],
    ] as const;
  const [whole, wide, slot] = [strokesOver(rectangle(1.2, 0.8), HAND), strokesOver(arch(0.7), HAND), strokesOver(arch(0.15), HAND)];
  expect(wide.count).toBeGreaterThan(whole.count);
  expect(wide.length_m).toBeLessThan(whole.length_m);
  expect(slot).toEqual(whole);
});

test("twice as fast is half the material; an outline that narrows takes shorter strokes; figures out of range are refused", () => {
  const door = rectangle(1.1, 0.7);
  const slow = strokesOver(door, HAND);
  expect(strokesOver(door, { ...HAND, handSpeed_m_s: 0.68 }).trigger_s).toBeCloseTo(slow.trigger_s / 2, 12);
  const wedge = [
    [0, 0],
    [1.1, 0],
    [0.55, 0.7],
  ] as const;
  expect(strokesOver(wedge, HAND).length_m).toBeLessThan(slow.length_m);
  expect(strokesOver(wedge, HAND).count).toBe(slow.count);
  expect(() => strokesOver(door, { ...HAND, overlap: 0.95 })).toThrow(RangeError);
  expect(() => strokesOver(door, { ...HAND, handSpeed_m_s: NaN })).toThrow(RangeError);
  expect(() => coatVolume(slow, 0)).toThrow(RangeError);
});

test("passes go there and back, each within half a fan of the part; over an arch the way back begins at its far side", () => {
  const passes = rowsOver(rectangle(1.2, 0.8), HAND, { ...USUAL_ROWS, first_m: -0.0625 });
  passes.forEach((p, n) => {
    expect(Math.sign(p.x1_m - p.x0_m)).toBe(n % 2 === 0 ? 1 : -1);
    expect(p.y_m).toBeCloseTo(-0.0625 + n * 0.125, 12);
    if (n > 0) expect(p.x0_m).toBeCloseTo(passes[n - 1]!.x1_m, 12);
  });
  expect(passes.at(-1)!.y_m).toBeLessThanOrEqual(0.8 + 1e-9);
  const arch = [
    [0, 0],
    [1.2, 0],
    [1.2, 0.8],
    [0.95, 0.8],
    [0.95, 0.3],
    [0.25, 0.3],
    [0.25, 0.8],
    [0, 0.8],
  ] as const;
  const back = rowsOver(arch, HAND).filter((p) => p.y_m > 0.6 && p.x1_m < p.x0_m);
  expect(back.length).toBeGreaterThanOrEqual(2);
  expect(back[0]!.x0_m).toBeGreaterThan(back[1]!.x0_m);
});

const PART = rectangle(1.1, 0.75);

test("even rows lie as far from both edges and no farther apart than the gap; the next coat's lie between them", () => {
  const even = { ...USUAL_ROWS, even: true, staggered: true };
  for (const first_m of [0, 0.05, -0.03]) {
    const [one, two] = [1, 2].map((number) => rowsOver(PART, HAND, { ...even, first_m }, number).map((p) => p.y_m));
    expect(one![0]).toBeCloseTo(first_m, 12);
    expect(one!.at(-1)).toBeCloseTo(0.75 - first_m, 12);
    one!.slice(1).forEach((y_m, k) => {
      expect(y_m - one![k]!).toBeLessThanOrEqual(0.125 + 1e-9);
      expect(two![k]).toBeCloseTo((y_m + one![k]!) / 2, 12);
    });
    expect(two).toHaveLength(one!.length - 1);
  }
  expect(rowsOver(rectangle(0.4, 0.05), HAND, { ...even, first_m: 0.03 }).map((p) => p.y_m)).toEqual([0.025]);
});

test("a hand is on one pass after another, each as long as it takes with its turn, and through when the coat's time is over", () => {
  const passes = rowsOver(PART, HAND);
  const { time_s } = strokesOf(passes, HAND);
  const each_s = time_s / passes.length;
  passes.forEach((_, n) => expect(passAt(passes, HAND, (n + 0.5) * each_s)).toBe(n));
  expect(passAt(passes, HAND, 0)).toBe(0);
  expect(passAt(passes, HAND, time_s + 0.01)).toBeNull();
  expect(() => passAt(passes, HAND, -1)).toThrow("elapsed_s");
});

test("rows up and down are those of the part laid over; ends first goes along both of them and costs what it takes", () => {
  const upright = rowsOver(PART, HAND, { ...USUAL_ROWS, turned: true });
  const lying = rowsOver(rectangle(0.75, 1.1), HAND);
  expect(upright.map((p) => ({ ...p, turned: false }))).toEqual(lying);
  expect(placeOnPass(upright[0]!, upright[0]!.x1_m)).toEqual({ x_m: 0, y_m: 0.85 });
  for (const turned of [false, true]) {
    const plain = { ...USUAL_ROWS, turned };
    const ends = rowsOver(PART, HAND, { ...plain, endsFirst: true });
    const { x1, y1 } = boundingBox(PART);
    expect(ends.slice(0, 2).map((p) => [p.turned, p.y_m])).toEqual([
      [!turned, 0],
      [!turned, turned ? y1 : x1],
    ]);
    expect(ends.slice(2)).toEqual(rowsOver(PART, HAND, plain));
    expect(strokesOver(PART, HAND, { ...plain, endsFirst: true }).length_m).toBeGreaterThan(strokesOver(PART, HAND, plain).length_m);
  }
  expect(() => rowsOver(PART, HAND, { ...USUAL_ROWS, first_m: 1 })).toThrow("first_m");
  expect(() => rowsOver(PART, HAND, { ...USUAL_ROWS, overrun_m: NaN })).toThrow("overrun_m");
});
