import { requireNumber } from "../../kernel/guard";

/** A second, wetter pot: so much of the mix, with so much more reducer. */
export interface SecondPot {
  coats: number[];
  /** Reducer in it, as a share of the activated mix. */
  reducer: number;
  ofMix_m3: number;
  more_m3: number;
}

/**
 * What is taken aside and thinned for the coats that their way sprays wetter than the rest of the mix: v·(1 + r)/(1 + r + m) of it with
 * v·m/(1 + r + m) of reducer, for v ready to spray. @param coats more: what a coat has over the reducer of the mix @throws RangeError
 */
export function secondPots(coats: readonly { number: number; volume_m3: number; more: number }[], reducer: number): SecondPot[] {
  const r = requireNumber("reducer", reducer, { min: 0, max: 1 });
  const pots = new Map<number, SecondPot>();
  for (const { number, volume_m3, more } of coats) {
    const v = requireNumber("volume_m3", volume_m3, { min: 0 });
    if (!(requireNumber("more", more, { min: -1, max: 1 }) > LEAST)) continue;
    const pot = pots.get(more) ?? { coats: [], reducer: r + more, ofMix_m3: 0, more_m3: 0 };
    pots.set(more, {
      ...pot,
      coats: [...pot.coats, number],
      ofMix_m3: pot.ofMix_m3 + (v * (1 + r)) / (1 + r + more),
      more_m3: pot.more_m3 + (v * more) / (1 + r + more),
    });
  }
  return [...pots.values()];
}
/** Less than this nobody measures. */
const LEAST = 1e-4;
