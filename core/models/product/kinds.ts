/** Kinds that are sprayed as a coat, and kinds that only go into a mix. */
export const COAT_KINDS = ["clear", "matte clear", "sealer", "primer", "base", "blender"] as const;
export const PART_KINDS = ["hardener", "reducer", "matting agent", "additive"] as const;
export type ProductKind = (typeof COAT_KINDS)[number] | (typeof PART_KINDS)[number];

/** What a coat is thinned with in the tin. */
export const CARRIERS = ["solvent", "water"] as const;
export type Carrier = (typeof CARRIERS)[number];
