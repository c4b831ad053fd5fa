import { COVERAGE } from "#core/kernel/units/format";
import { TEXTURE_SD } from "#core/models/flow/constants";

/** A texture on the scale 1 glass … 5 heavy, in a word. */
export const textureWords = (t: number) => (t < 1.7 ? "glass" : t < 2.7 ? "fine" : t < 3.7 ? "usual" : t < 4.5 ? "coarse" : "heavy peel");

/** Half a step is what the model tells apart, with its doubt. */
const HALVES = 2;
/** A foretold texture, to the half step with its ± (95 %). */
export function textureTold(t: number): string {
  const half = (x: number) => Math.round(HALVES * x) / HALVES;
  return `${half(t).toFixed(1)} ± ${half(COVERAGE * TEXTURE_SD).toFixed(1)}`;
}
