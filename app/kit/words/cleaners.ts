import type { Carrier } from "#core/models/product/kinds";

/** Cleaners in their order. Common practice; the base's sheet comes first. */
export const cleanersFor = (carrier: Carrier | null): string =>
  carrier === "water"
    ? "Solvent first, then water-borne, for a water-borne base; one way, clean face, until dry"
    : "Water-borne, then solvent; one way, clean face, until dry";
