import { requireNumber } from "../../kernel/guard";

export interface WeighedPart {
  role: string;
  /** Share of the finished mix by volume. */
  share: number;
  density_kg_m3: number;
}
export interface PourTarget {
  role: string;
  volume_m3: number;
  mass_kg: number;
  /** What the scale shows when this part is in, tared with the empty pot. */
  upTo_kg: number;
  /** Height of the mark in a straight-walled cup, as a share of the full mix. */
  mark: number;
}

/**
 * Targets by volume, by weight and by cup marks for a mix, in pouring order.
 * @throws RangeError for a volume or density that is not above zero.
 */
export function pourTargets(parts: readonly WeighedPart[], volume_m3: number): PourTarget[] {
  requireNumber("volume_m3", volume_m3, { above: 0 });
  let mass = 0;
  let share = 0;
  return parts.map((p, i) => {
    const volume = volume_m3 * requireNumber(`parts[${i}].share`, p.share, { above: 0, max: 1 });
    const mass_kg = volume * requireNumber(`parts[${i}].density_kg_m3`, p.density_kg_m3, { min: 500, max: 3000 });
    mass += mass_kg;
    share += p.share;
    return { role: p.role, volume_m3: volume, mass_kg, upTo_kg: mass, mark: share };
  });
}

/** What is wrong with a pour and what mends it. */
export interface PourState {
  /** Part that is being poured, or null when all are in. */
  current: number | null;
  /** Part by part: poured, wanted now, and still to add. */
  parts: { role: string; poured_kg: number; target_kg: number; add_kg: number; state: "open" | "in" | "over" }[];
  /** Volume of the mix when everything is added. */
  volume_m3: number;
  /** True when one part is beyond its band and the rest was raised to keep the ratio. */
  corrected: boolean;
  /** The corrected mix no longer goes into the pot: by how much. */
  over_m3: number;
}

/**
 * Where a pour stands. A part poured beyond its band cannot be taken out again, so the whole mix grows until the ratio is right: the
 * factor is the greatest of poured ÷ target over the parts, and every other part is raised to it.
 * @param done parts already accepted, in order; `poured_kg` of the next one may still grow.
 * @param tolerance band as a share of a part's target within which a part counts as in
 * @throws RangeError
 */
export function pourState(input: {
  parts: readonly WeighedPart[];
  volume_m3: number;
  poured_kg: readonly number[];
  done: number;
  capacity_m3: number;
  tolerance?: number;
}): PourState {
  const tolerance = requireNumber("tolerance", input.tolerance ?? POUR_TOLERANCE, { above: 0, max: 0.2 });
  const capacity_m3 = requireNumber("capacity_m3", input.capacity_m3, { above: 0 });
  const targets = pourTargets(input.parts, input.volume_m3);
  const poured = targets.map((_, i) => requireNumber(`poured_kg[${i}]`, input.poured_kg[i] ?? 0, { min: -0.01 }));
  const ratios = targets.map((t, i) => poured[i]! / t.mass_kg);
  const most = Math.max(...ratios);
  const corrected = most > 1 + tolerance;
  const factor = corrected ? most : 1;
  const volume_m3 = input.volume_m3 * factor;
  return {
    current: input.done < targets.length ? input.done : corrected ? firstShort() : null,
    parts: targets.map((t, i) => {
      const target_kg = t.mass_kg * factor;
      const add_kg = Math.max(0, target_kg - poured[i]!);
      const state = ratios[i]! > 1 + tolerance ? "over" : add_kg <= t.mass_kg * tolerance ? "in" : "open";
      return { role: t.role, poured_kg: poured[i]!, target_kg, add_kg, state };
    }),
    volume_m3,
    corrected,
    over_m3: Math.max(0, volume_m3 - capacity_m3),
  };

  function firstShort(): number | null {
    const i = targets.findIndex((t, k) => t.mass_kg * factor - poured[k]! > t.mass_kg * tolerance);
    return i < 0 ? null : i;
  }
}

/** Band of a part by weight: within this share of its target nothing needs mending. Common practice by weight is about a per cent. */
export const POUR_TOLERANCE = 0.01;
