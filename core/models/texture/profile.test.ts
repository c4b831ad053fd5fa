import fc from "fast-check";
import { profileParameters } from "./profile";

const N = 10_000;
const PERIODS = 20;
const wave = (f: (t: number) => number) => Array.from({ length: N }, (_, i) => f((PERIODS * i) / N));

/** Closed forms of a sine, a triangle and a square wave of amplitude 1: any handbook of surface texture. */
test("a sine has Ra 2/π, Rq 1/√2, Rt 2, no skew, kurtosis 1.5, and its own spacing and slope", () => {
  const p = profileParameters(
    wave((t) => Math.sin(2 * Math.PI * t)),
    1,
  );
  expect(p.Ra).toBeCloseTo(2 / Math.PI, 4);
  expect(p.Rq).toBeCloseTo(Math.SQRT1_2, 4);
  expect(p.Rt).toBeCloseTo(2, 4);
  expect(p.Rsk).toBeCloseTo(0, 6);
  expect(p.Rku).toBeCloseTo(1.5, 4);
  expect(p.Rsm).toBeCloseTo(N / PERIODS, 3);
  expect(p.Rdq).toBeCloseTo(((2 * Math.PI * PERIODS) / N) * Math.SQRT1_2, 5);
});

test("a triangle has Ra ½, Rq 1/√3, kurtosis 1.8; a square wave Ra = Rq = 1 and kurtosis 1", () => {
  const triangle = profileParameters(
    wave((t) => 4 * Math.abs((t % 1) - 0.5) - 1),
    1,
  );
  expect(triangle.Ra).toBeCloseTo(0.5, 3);
  expect(triangle.Rq).toBeCloseTo(1 / Math.sqrt(3), 3);
  expect(triangle.Rku).toBeCloseTo(1.8, 3);
  const square = profileParameters(
    wave((t) => (t % 1 < 0.5 ? 1 : -1)),
    1,
  );
  expect([square.Ra, square.Rq, square.Rku]).toEqual([1, 1, 1].map((v) => expect.closeTo(v, 6) as number));
});

test("scratches lean the heights downward and nibs upward: the sign of the skew tells them apart", () => {
  const flat = new Array<number>(400).fill(0);
  const scratched = flat.map((z, i) => (i % 40 === 0 ? -5 : z));
  expect(profileParameters(scratched, 1).Rsk).toBeLessThan(-3);
  expect(
    profileParameters(
      scratched.map((z) => -z),
      1,
    ).Rsk,
  ).toBeGreaterThan(3);
});

test("height and spacing scale as they should, and where the profile lies does not matter", () => {
  const heights = fc.array(fc.double({ min: -50, max: 50, noNaN: true }), { minLength: 5, maxLength: 60 });
  fc.assert(
    fc.property(heights, fc.double({ min: 0.1, max: 10, noNaN: true }), fc.double({ min: -100, max: 100, noNaN: true }), (z, k, up) => {
      const one = profileParameters(z, 2);
      const moved = profileParameters(
        z.map((v) => k * v + up),
        2,
      );
      expect(moved.Ra).toBeCloseTo(k * one.Ra, 6);
      expect(moved.Rq).toBeCloseTo(k * one.Rq, 6);
      expect(moved.Rdq).toBeCloseTo(k * one.Rdq, 6);
      expect(one.Ra).toBeLessThanOrEqual(one.Rq + 1e-12);
      expect(one.Rq).toBeLessThanOrEqual(one.Rt + 1e-12);
      expect(profileParameters(z, 4).Rdq).toBeCloseTo(one.Rdq / 2, 9);
    }),
  );
});

test("too few points, or none that is a number, are refused", () => {
  expect(() => profileParameters([1, 2], 1)).toThrow(RangeError);
  expect(() => profileParameters([1, 2, Number.NaN], 1)).toThrow("profile");
  expect(() => profileParameters([1, 2, 3], 0)).toThrow("spacing");
  expect(profileParameters([1, 1, 1], 1)).toMatchObject({ Ra: 0, Rq: 0, Rsk: 0, Rku: 0, Rsm: null });
});
