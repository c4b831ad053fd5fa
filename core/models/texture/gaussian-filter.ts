import { requireNumber, requireNumbers } from "../../kernel/guard";

/** α of the Gaussian profile filter: √(ln 2/π), so that half of the amplitude passes at the cutoff (ISO 16610-21). */
export const GAUSSIAN_ALPHA = Math.sqrt(Math.LN2 / Math.PI);

/** Share of a wave's amplitude that a Gaussian filter lets through as waviness: 2^(−(λc/λ)²). @throws RangeError */
export function gaussianTransmission(wavelength_m: number, cutoff_m: number): number {
  return 2 ** -((requireNumber("cutoff_m", cutoff_m, { above: 0 }) / requireNumber("wavelength_m", wavelength_m, { above: 0 })) ** 2);
}

/** Transmission of a band between two cutoffs: long-wave part of the short cutoff less that of the long one. @throws RangeError */
export function bandTransmission(wavelength_m: number, short_m: number, long_m: number): number {
  requireNumber("long_m", long_m, { above: short_m });
  return gaussianTransmission(wavelength_m, short_m) - gaussianTransmission(wavelength_m, long_m);
}

/** Weights of the filter, truncated at ±cutoff and normalised; length 2·⌊λc/dx⌋ + 1. @throws RangeError */
export function gaussianWeights(cutoff_m: number, spacing_m: number): Float64Array {
  const half = Math.floor(requireNumber("cutoff_m", cutoff_m, { above: 0 }) / requireNumber("spacing_m", spacing_m, { above: 0 }) + 1e-9);
  const raw = Float64Array.from({ length: 2 * half + 1 }, (_, i) =>
    Math.exp(-Math.PI * (((i - half) * spacing_m) / (GAUSSIAN_ALPHA * cutoff_m)) ** 2),
  );
  const sum = raw.reduce((a, w) => a + w, 0);
  return raw.map((w) => w / sum);
}

/** Waviness of a profile; near the ends the weights within range are renormalised. Roughness is the profile less it. @throws RangeError */
export function gaussianWaviness(
  profile: readonly number[] | Float64Array,
  { cutoff_m, spacing_m }: { cutoff_m: number; spacing_m: number },
): Float64Array {
  requireNumbers("profile", Array.from(profile));
  const weights = gaussianWeights(cutoff_m, spacing_m);
  const half = (weights.length - 1) / 2;
  return Float64Array.from({ length: profile.length }, (_, i) => {
    let sum = 0;
    let weight = 0;
    for (let k = -half; k <= half; k++) {
      const z = profile[i + k];
      if (z === undefined) continue;
      sum += weights[k + half]! * z;
      weight += weights[k + half]!;
    }
    return sum / weight;
  });
}
