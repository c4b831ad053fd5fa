import fc from "fast-check";
import { deposit } from "./deposit";
import { needleFlow } from "./needle-flow";
import { USUAL_GUN } from "./usual-gun";
import { SPRAY } from "./constants";

const share = fc.double({ min: 0, max: 0.4, noNaN: true });
const solids = fc.double({ min: 0.3, max: 0.6, noNaN: true });

test("nothing more flows without more reducer, and more always flows with more of it", () => {
  fc.assert(
    fc.property(share, share, solids, (a, b, volumeSolids) => {
      expect(needleFlow(a, a, { volumeSolids })).toBeCloseTo(1, 12);
      if (b > a + 1e-6) expect(needleFlow(a, b, { volumeSolids })).toBeGreaterThan(1);
    }),
  );
});

test("one step after the other is both at once, and there and back is nothing", () => {
  fc.assert(
    fc.property(share, share, share, solids, (a, b, c, volumeSolids) => {
      const s = { volumeSolids };
      expect(needleFlow(a, b, s) * needleFlow(b, c, s)).toBeCloseTo(needleFlow(a, c, s), 9);
      expect(needleFlow(a, b, s) * needleFlow(b, a, s)).toBeCloseTo(1, 9);
    }),
  );
});

test("the square of it is the viscosity's fall: 5 × the difference of free volume, worked by hand at the reference temperature", () => {
  // u = 1/φ − 1: 1 without reducer, 1.2 with a tenth at half solids; f = u + 0.3; ln η falls by 5·(1/1.3 − 1/1.5).
  expect(SPRAY.freeVolumeB).toBe(5);
  expect(needleFlow(0, 0.1) ** 2).toBeCloseTo(Math.exp(5 * (1 / 1.3 - 1 / 1.5)), 10);
  expect(needleFlow(0, 0.1)).toBeCloseTo(1.292, 3);
});

test("over-reduction at the same needle is not free: wetter by more than the needle alone, though not by as much in dry film", () => {
  const conditions = { air_K: 295.15, speed: "medium", volumeSolids: 0.475 } as const;
  const lay = (reducer: number, same: boolean) =>
    deposit(
      { ...USUAL_GUN, fluidRate_m3_s: USUAL_GUN.fluidRate_m3_s * (same ? needleFlow(0, reducer, { volumeSolids: 0.475 }) : 1) },
      { ...conditions, reducer },
    );
  const [plain, measured, needle] = [lay(0, true), lay(0.15, false), lay(0.15, true)];
  expect(needle.wet_m).toBeGreaterThan(1.2 * plain.wet_m);
  expect(measured.dry_m).toBeLessThan(plain.dry_m);
  expect(needle.dry_m / plain.dry_m).toBeLessThan(needle.wet_m / plain.wet_m);
});

test("a share or solids that no clear has is refused", () => {
  for (const bad of [-0.01, 1.01, Number.NaN, Infinity]) {
    expect(() => needleFlow(0, bad)).toThrow(RangeError);
    expect(() => needleFlow(bad, 0)).toThrow(RangeError);
  }
  expect(() => needleFlow(0, 0.1, { volumeSolids: 0 })).toThrow("volumeSolids");
  expect(() => needleFlow(0, 0.1, { material_K: 200 })).toThrow("material_K");
});
