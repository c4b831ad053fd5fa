import fc from "fast-check";
import { GAUSSIAN_ALPHA, bandTransmission, gaussianTransmission, gaussianWaviness, gaussianWeights } from "./gaussian-filter";

const mm = (x: number) => x * 1e-3;

/** ISO 16610-21:2011, equation of the transmission characteristic and α = √(ln 2/π) = 0.4697 (from memory). */
test("half of the amplitude passes at the cutoff; at twice and half of it what the standard's formula says", () => {
  expect(GAUSSIAN_ALPHA).toBeCloseTo(0.4697, 4);
  const at = (times: number) => gaussianTransmission(mm(0.8) * times, mm(0.8));
  expect(at(1)).toBeCloseTo(0.5, 12);
  expect(at(2)).toBeCloseTo(Math.exp(-Math.PI * (GAUSSIAN_ALPHA / 2) ** 2), 12);
  expect(at(2)).toBeCloseTo(0.8409, 4);
  expect(at(0.5)).toBeCloseTo(0.0625, 4);
  expect(at(3)).toBeCloseTo(0.9259, 4);
});

test("a long wave passes, a short one does not, and nothing comes out larger than it went in", () => {
  fc.assert(
    fc.property(fc.double({ min: 0.05, max: 50, noNaN: true }), fc.double({ min: 0.05, max: 50, noNaN: true }), (wave, cutoff) => {
      const share = gaussianTransmission(mm(wave), mm(cutoff));
      expect(share).toBeGreaterThanOrEqual(0);
      expect(share).toBeLessThanOrEqual(1);
      expect(share > 0.5).toBe(wave > cutoff);
    }),
  );
});

test("a band takes what lies between its cutoffs: most in its middle, half of nothing at either side", () => {
  const [short, long] = [mm(1.2), mm(12)];
  const middle = bandTransmission(Math.sqrt(short * long), short, long);
  expect(middle).toBeGreaterThan(0.8);
  for (const out of [mm(0.3), mm(60)]) expect(bandTransmission(out, short, long)).toBeLessThan(0.05);
  expect(bandTransmission(short, short, long)).toBeCloseTo(0.5, 2);
  expect(() => bandTransmission(mm(3), long, short)).toThrow("long_m");
});

test("weights are symmetric, sum to one, and fall from the middle", () => {
  const w = gaussianWeights(mm(0.8), mm(0.02));
  expect(w.length).toBe(81);
  expect(w.reduce((a, x) => a + x, 0)).toBeCloseTo(1, 12);
  w.forEach((x, i) => expect(x).toBeCloseTo(w[w.length - 1 - i]!, 15));
  for (let i = 41; i < w.length; i++) expect(w[i]!).toBeLessThan(w[i - 1]!);
});

test("a cosine keeps the share that the formula gives, its phase and its place", () => {
  const spacing = mm(0.02);
  for (const times of [0.5, 1, 2, 4]) {
    const wave = mm(0.8) * times;
    const profile = Array.from({ length: 2001 }, (_, i) => Math.cos((2 * Math.PI * i * spacing) / wave));
    const waviness = gaussianWaviness(profile, { cutoff_m: mm(0.8), spacing_m: spacing });
    const share = gaussianTransmission(wave, mm(0.8));
    // Away from the ends; the weights are cut off at one cutoff, which costs less than a hundredth.
    for (let i = 200; i < 1800; i += 13) expect(Math.abs(waviness[i]! - share * profile[i]!)).toBeLessThan(0.012);
  }
});

test("what is level stays level to its very ends, and a slope is not bent in the middle", () => {
  const flat = gaussianWaviness(new Array<number>(50).fill(3.7), { cutoff_m: mm(0.8), spacing_m: mm(0.1) });
  for (const z of flat) expect(z).toBeCloseTo(3.7, 12);
  const slope = Array.from({ length: 101 }, (_, i) => 0.2 * i);
  const out = gaussianWaviness(slope, { cutoff_m: mm(0.8), spacing_m: mm(0.1) });
  for (let i = 10; i < 91; i++) expect(out[i]!).toBeCloseTo(slope[i]!, 9);
});

test("figures that no filter has are refused by name", () => {
  expect(() => gaussianTransmission(0, mm(1))).toThrow("wavelength_m");
  expect(() => gaussianTransmission(mm(1), Number.NaN)).toThrow("cutoff_m");
  expect(() => gaussianWeights(mm(1), 0)).toThrow("spacing_m");
  expect(() => gaussianWaviness([1, Number.POSITIVE_INFINITY, 2], { cutoff_m: mm(1), spacing_m: mm(0.1) })).toThrow("profile");
});
