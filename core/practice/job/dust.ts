import { type Polygon, polygonArea } from "../../kernel/geometry/geometry";
import { requireNumber } from "../../kernel/guard";
import { seededRandom } from "../../kernel/stats/random";
import type { CoatOfHand } from "../hand";
import { placeByChance } from "../place-by-chance";
import type { Nib } from "./cured";

/** Dust of a clean booth that falls on an open film, and for how long a coat takes it in. Defaults of ours, for practice alone. */
export const DUST = { per_m2_min: 0.25, height_m: [15e-6, 55e-6], open_s: 20 * 60 } as const;

/** What fell into the coats of a session while they were open, by chance of a seed. @throws RangeError */
export function dustOn(outline: Polygon, coats: readonly CoatOfHand[], seed: number): Nib[] {
  const random = seededRandom(requireNumber("seed", seed));
  const open_s = coats.reduce((sum, { hand, flash_s }) => sum + (hand.at(-1)?.t_s ?? 0) + Math.min(DUST.open_s, flash_s), 0);
  const expected = (DUST.per_m2_min * polygonArea(outline) * open_s) / 60;
  const nibs: Nib[] = [];
  for (let gone = -Math.log(1 - random()); gone < expected; gone -= Math.log(1 - random())) {
    const place = placeByChance(outline, random);
    const [low, high] = DUST.height_m;
    nibs.push({ ...place, height_m: low + (high - low) * random() });
  }
  return nibs;
}
