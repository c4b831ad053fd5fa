/** Gloss of two matte parts side by side: the same within the greater of both, seen at once beyond. Defaults of ours, after 26.3 against 21.7 GU. */
const MATTE_GLOSS = { same: { GU: 1.5, share: 0.08 }, off: { GU: 3, share: 0.15 } } as const;

/** How two glosses stand beside each other: a matte part against what is wanted, or against the next face. @throws RangeError */
export function glossBeside(one_GU: number, other_GU: number): "good" | "look" | "against" {
  if (!(one_GU >= 0) || !(other_GU >= 0)) throw new RangeError(`gloss must be >= 0, got ${one_GU} and ${other_GU}`);
  const off = Math.abs(one_GU - other_GU);
  const of = (l: { GU: number; share: number }) => Math.max(l.GU, l.share * Math.min(one_GU, other_GU));
  return off <= of(MATTE_GLOSS.same) ? "good" : off <= of(MATTE_GLOSS.off) ? "look" : "against";
}
