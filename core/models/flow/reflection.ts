import { requireInteger, requireNumber } from "../../kernel/guard";
import type { Random } from "../../kernel/stats/random";
import { FLOW } from "./constants";
import type { FlowResult } from "./simulate-coats";
import { waveNumbers } from "./wave-numbers";

/** Directions in which each wave of the spectrum runs. */
const DIRECTIONS = 5;

/**
 * Edges of a straight light tube as a textured surface would reflect it: each wave of the spectrum tilts the surface, and the reflection
 * moves by twice the tilt times the distance. Random phases, so it is one example of such a surface, not this one.
 * @param view.length_m length of panel seen, in `samples` steps @param view.distance_m from panel to tube
 * @returns displacement of the upper and lower edge, m at the tube @throws RangeError
 */
export function tubeReflection(
  spectrum: FlowResult["spectrum"],
  weight: ArrayLike<number>,
  view: { length_m: number; samples: number; distance_m: number; apart_m: number },
  random: Random,
): { upper_m: Float64Array; lower_m: Float64Array } {
  const length = requireNumber("view.length_m", view.length_m, { above: 0, max: 3 });
  const samples = requireInteger("view.samples", view.samples, { min: 8, max: 4000 });
  const reach = 2 * requireNumber("view.distance_m", view.distance_m, { above: 0, max: 20 });
  const upper_m = new Float64Array(samples);
  const lower_m = new Float64Array(samples);
  spectrum.k.forEach((k, i) => {
    const rms = Math.sqrt(spectrum.density[i]! * weight[i]!);
    for (let m = 0; m < DIRECTIONS; m++) {
      const angle = (Math.PI * (m + random())) / DIRECTIONS;
      const phase = 2 * Math.PI * random();
      const along = k * Math.cos(angle);
      const across = k * Math.sin(angle);
      const tilt = rms * Math.sqrt(2 / DIRECTIONS) * across;
      addWave(upper_m, { height: reach * tilt, phase, step: (along * length) / samples });
      addWave(lower_m, { height: reach * tilt, phase: phase + across * view.apart_m, step: (along * length) / samples });
    }
  });
  return { upper_m, lower_m };
}

/** Adds height·cos(phase + step·s) to each sample s, turned on from one to the next instead of asked for anew: the same within 1e-12 of the height. */
function addWave(to: Float64Array, { height, phase, step }: { height: number; phase: number; step: number }): void {
  const [cos, sin] = [Math.cos(step), Math.sin(step)];
  let [x, y] = [height * Math.cos(phase), height * Math.sin(phase)];
  for (let s = 0; s < to.length; s++) {
    to[s] = to[s]! + x;
    [x, y] = [x * cos - y * sin, x * sin + y * cos];
  }
}

/** Waves of usual peel are about this long, within a factor of e^±width. Defaults of ours. */
const PEEL = { length_m: 5e-3, logWidth: 0.6 } as const;

/** Waves of a peeled surface with an rms height: what a reflection is drawn from where only its height is known. @throws RangeError */
export function peelSpectrum(rms_m: number): FlowResult["spectrum"] {
  requireNumber("rms_m", rms_m, { min: 0, max: 1e-3 });
  const { k, weight } = waveNumbers(16);
  const shape = Float64Array.from(k, (v) => Math.exp(-0.5 * (Math.log((v * PEEL.length_m) / (2 * Math.PI)) / PEEL.logWidth) ** 2));
  const sum = shape.reduce((a, s, i) => a + s * weight[i]!, 0);
  return { k: Float64Array.from(k), density: shape.map((s) => (s * rms_m ** 2) / sum) };
}

/** Texture of a surface from its waviness in the two bands, kept on the scale 1 … 5. @throws RangeError */
export function textureOf({ long_m, short_m }: { long_m: number; short_m: number }): number {
  const visible_m = Math.hypot(requireNumber("long_m", long_m, { min: 0 }), 3 * requireNumber("short_m", short_m, { min: 0 }));
  const texture = 1 + Math.log(Math.max(visible_m, 1e-9) / FLOW.textureUnit_m) / Math.log(FLOW.textureStep);
  return Math.min(5, Math.max(1, texture));
}

/**
 * The same waves, higher or lower, so that the surface has a texture on the scale 1 … 5: what a rating by eye may look like. Amplitudes go
 * with textureStep to the power of the difference.
 * @throws RangeError for a rating outside 1 … 5
 */
export function withTexture(result: FlowResult, texture: number): FlowResult {
  const wanted = requireNumber("texture", texture, { min: 1, max: 5 });
  const share = FLOW.textureStep ** (wanted - result.texture);
  const density = Float64Array.from(result.spectrum.density, (d) => d * share ** 2);
  return { ...result, texture: wanted, spectrum: { ...result.spectrum, density } };
}
