import { requireNumber } from "../../kernel/guard";

export interface PotCoat {
  number: number;
  volume_m3: number;
  /** Start and end against the start of the first coat. */
  start_s: number;
  end_s: number;
}
export interface Pot {
  coats: number[];
  volume_m3: number;
  /** Mix at this time after the first coat starts (negative: before it). */
  mixAt_s: number;
  /** Over at this time. */
  overAt_s: number;
}

/**
 * Splits a job into pots so that each is sprayed within its life. A new pot is mixed for the coat that the last one would not live to finish.
 * @param margin share of the pot life that is used; the rest is for straining, filling and waiting. Default 0.8 [common practice].
 * @throws RangeError when one coat alone outlives a pot.
 */
export function splitPots(
  coats: readonly PotCoat[],
  { potLife_s, mixing_s = 300, margin = 0.8 }: { potLife_s: number; mixing_s?: number; margin?: number },
): Pot[] {
  const usable = requireNumber("potLife_s", potLife_s, { above: 0 }) * requireNumber("margin", margin, { above: 0, max: 1 });
  requireNumber("mixing_s", mixing_s, { min: 0 });
  const pots: Pot[] = [];
  for (const coat of coats) {
    requireNumber("coat.volume_m3", coat.volume_m3, { above: 0 });
    requireNumber("coat.end_s", coat.end_s, { min: coat.start_s });
    const last = pots.at(-1);
    if (last && coat.end_s <= last.mixAt_s + usable) {
      last.coats.push(coat.number);
      last.volume_m3 += coat.volume_m3;
      continue;
    }
    const mixAt_s = coat.start_s - mixing_s;
    if (coat.end_s - mixAt_s > usable)
      throw new RangeError(`coat ${coat.number} must be sprayed within ${usable} s of mixing, takes ${coat.end_s - mixAt_s} s`);
    pots.push({ coats: [coat.number], volume_m3: coat.volume_m3, mixAt_s, overAt_s: mixAt_s + potLife_s });
  }
  return pots;
}

/** Time to spray an area once: its stripes of fan × (1 − overlap) at the hand's speed, and a share for turning and walking. @throws RangeError */
export function passTime(input: { area_m2: number; fan_m: number; overlap: number; handSpeed_m_s: number; turning?: number }): number {
  const area = requireNumber("area_m2", input.area_m2, { above: 0 });
  const stripe = requireNumber("fan_m", input.fan_m, { above: 0 }) * (1 - requireNumber("overlap", input.overlap, { min: 0, max: 0.9 }));
  const speed = requireNumber("handSpeed_m_s", input.handSpeed_m_s, { above: 0 });
  return (area / (stripe * speed)) * (1 + requireNumber("turning", input.turning ?? 0.6, { min: 0 }));
}
