import { requireNumber } from "../../kernel/guard";
import type { AnySheet, ProductSheet } from "../product/sheet";

/** A matte product and what it is blended with: which of the two is the matting component, and how much of it. */
export interface MatteBlend {
  other: AnySheet;
  /** The product itself is the matting component, or what it is blended with: a matting agent. */
  matting: "product" | "other";
  /** Share of the matting component by weight of the two. */
  share: number;
}

/** The blend of a matte product at a share, with its partner from the shelf; null where it has none there. @throws RangeError */
export function matteBlend(sheet: ProductSheet, shelf: readonly AnySheet[], share: number): MatteBlend | null {
  requireNumber("share", share, { min: 0, max: 1 });
  const other = sheet.blendWith === "" ? undefined : shelf.find((s) => s.name === sheet.blendWith);
  return other ? { other, matting: other.kind === "matting agent" ? "other" : "product", share } : null;
}

/**
 * Volume of the product in the two together, from shares by weight: v = (w/ρ) ÷ Σ(w/ρ). Without both densities the two count as equally heavy, and
 * nothing can be weighed.
 * @throws RangeError @example 85 % of 1010 kg/m³ with 15 % of 990: 0.8474 of the volume
 */
export function productVolumeShare(sheet: ProductSheet, { other, matting, share }: MatteBlend): number {
  const weight = matting === "product" ? share : 1 - share;
  const known = sheet.density_kg_m3 !== null && other.density_kg_m3 !== null;
  const [own, its] = known ? [sheet.density_kg_m3!, other.density_kg_m3!] : [1, 1];
  return weight / own / (weight / own + (1 - weight) / its);
}
