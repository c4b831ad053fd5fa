import { findInclusions, lightRefused } from "#core/models/photo/nibs";
import { pictureOf, shrink, blurred, blurredLine } from "#core/models/photo/picture";
import { photographNibs } from "../../../stand-ins/camera";

const SCALE = 0.1e-3;
const look = (o: Partial<Parameters<typeof photographNibs>[0]> & { seed: number }) => {
  const { picture, nibs } = photographNibs({ width: 460, height: 360, scale_m_px: SCALE, nibs: 12, ...o });
  const answer = findInclusions(pictureOf(picture.rgba, picture.width, picture.height), o.scale_m_px ?? SCALE);
  return { answer, nibs };
};

test("nibs of half a millimetre and more at a fifth of contrast: at least 95 % found, at most one false a picture", () => {
  let [hits, all, wrong, pictures] = [0, 0, 0, 0];
  for (let seed = 1; seed <= 6; seed++) {
    const { answer, nibs } = look({ seed });
    if (!answer.ok) throw new Error(answer.reason);
    const used = new Set<number>();
    for (const n of nibs) {
      const near = answer.found.findIndex(
        (f, i) => !used.has(i) && Math.hypot(f.x - n.x, f.y - n.y) < Math.max(3, (0.5 * n.diameter_m) / SCALE),
      );
      if (near >= 0) used.add(near);
      all++;
      if (near >= 0) hits++;
    }
    wrong += answer.found.length - used.size;
    pictures++;
  }
  expect(hits / all).toBeGreaterThanOrEqual(0.95);
  expect(wrong / pictures).toBeLessThanOrEqual(1);
});

test("a found nib's size is within a third of the true one, its sign right", () => {
  const { answer, nibs } = look({ seed: 11, diameters_m: [1e-3], nibs: 8 });
  if (!answer.ok) throw new Error(answer.reason);
  for (const n of nibs) {
    const f = answer.found.find((g) => Math.hypot(g.x - n.x, g.y - n.y) < 5);
    if (!f) continue;
    expect(Math.abs(f.diameter_m / n.diameter_m - 1)).toBeLessThan(0.34);
    expect(Math.sign(f.contrast)).toBe(Math.sign(n.contrast));
  }
});

test("a clean panel has none; a fine picture is made smaller first and gives places of the picture as it was", () => {
  const clean = look({ seed: 3, nibs: 0 });
  expect(clean.answer.ok && clean.answer.found.length).toBeLessThanOrEqual(1);
  const fine = look({ seed: 4, width: 600, height: 460, scale_m_px: 0.05e-3, nibs: 4, diameters_m: [1e-3], contrasts: [0.3] });
  if (!fine.answer.ok) throw new Error(fine.answer.reason);
  for (const n of fine.nibs) expect(fine.answer.found.some((f) => Math.hypot(f.x - n.x, f.y - n.y) < 8)).toBe(true);
});

test("grid light, a clipped, a dark and a tiny picture are refused with the reason", () => {
  const { answer } = look({ seed: 5, grid: true });
  expect(!answer.ok && answer.reason).toContain("diffuse light");
  const even = (v: number, size = 300) => pictureOf(new Uint8Array(4 * size * size).fill(v), size, size);
  const reason = (p: ReturnType<typeof even>) => {
    const a = findInclusions(p, SCALE);
    return a.ok ? "" : a.reason;
  };
  expect(reason(even(255))).toContain("clipped");
  expect(reason(even(3))).toContain("dark");
  expect(reason(even(120, 50))).toContain("too small");
  expect(() => findInclusions(even(120), 0)).toThrow("scale_m_px");
});

test("a small frame of a picture is refused for the same reason as the picture, and only where that is", () => {
  const views = [{ seed: 5, grid: true }, { seed: 6, grid: true }, { seed: 7 }, { seed: 8, nibs: 40 }].map((o) => {
    const { picture } = photographNibs({ width: 720, height: 540, scale_m_px: SCALE, nibs: 12, ...o });
    return pictureOf(picture.rgba, picture.width, picture.height);
  });
  const even = (v: number) => pictureOf(new Uint8Array(4 * 720 * 540).fill(v), 720, 540);
  const reasons = [...views, even(255), even(3)].map((view) => {
    const whole = lightRefused(view);
    for (const times of [2, 3]) expect(lightRefused(shrink(view, times), times)).toBe(whole);
    return whole;
  });
  expect(reasons.map((r) => r?.match(/grid|clipped|dark/)?.[0] ?? null)).toEqual(["grid", "grid", null, null, "clipped", "dark"]);
  expect(() => lightRefused(views[0]!, 0.5)).toThrow("times");
});

test("pictures: linear light, shrinking keeps the mean, blurring keeps the sum, wrong sizes are refused", () => {
  expect(pictureOf(Uint8Array.from([188, 188, 188, 255]), 1, 1).light[0]).toBeCloseTo(0.5029, 3); // sRGB 188 is half the light (IEC 61966-2-1, from memory)
  const ramp = { width: 6, height: 4, light: Float32Array.from({ length: 24 }, (_, i) => i / 24) };
  const mean = (v: ArrayLike<number>) => Array.from(v).reduce((a, b) => a + b, 0) / v.length;
  expect(mean(shrink(ramp, 2).light)).toBeCloseTo(mean(ramp.light), 6);
  expect(mean(blurred(Float64Array.from(ramp.light), 6, 4, 1.3))).toBeCloseTo(mean(ramp.light), 6);
  expect(blurredLine(Float64Array.from([1, 1, 1, 1]), 2)[2]).toBeCloseTo(1, 12);
  expect(() => pictureOf(new Uint8Array(7), 1, 1)).toThrow("rgba");
  expect(() => pictureOf(new Uint8Array(0), 20_000, 10_000)).toThrow("megapixels");
});
