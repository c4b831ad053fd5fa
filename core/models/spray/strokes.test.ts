import { readFileSync } from "node:fs";
import { rectangle } from "#core/kernel/geometry/geometry";
import { coatVolume, passesOver, strokesOver } from "./strokes";

/** Material that the reference program of the spray simulation uses on its own rows (230 ml/min, 0.34 m/s, fan 0.25 m, half covered again). */
const reference = JSON.parse(readFileSync("core/models/spray/testing/strokes-reference.json", "utf8")) as {
  name: string;
  width_m: number;
  height_m: number;
  released_ml: number;
  held_ml: number;
}[];
const HAND = { fan_m: 0.25, overlap: 0.5, handSpeed_m_s: 0.34 };
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
  const passes = passesOver(rectangle(1.2, 0.8), { fan_m: 0.25, overlap: 0.5, first_m: -0.0625 });
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
  const back = passesOver(arch, { fan_m: 0.25, overlap: 0.5 }).filter((p) => p.y_m > 0.6 && p.x1_m < p.x0_m);
  expect(back.length).toBeGreaterThanOrEqual(2);
  expect(back[0]!.x0_m).toBeGreaterThan(back[1]!.x0_m);
});
