/** Kinds that are sprayed as a coat, and kinds that only go into a mix. */
export const COAT_KINDS = ["clear", "matte clear", "single stage", "sealer", "primer", "base", "blender"] as const;
export const PART_KINDS = ["hardener", "reducer", "matting agent", "additive"] as const;
export type ProductKind = (typeof COAT_KINDS)[number] | (typeof PART_KINDS)[number];

/** A topcoat that carries the colour itself: no base lies below it, and its sanding dust is coloured from the first stroke. */
export const isColoured = ({ kind }: { kind: ProductKind }): boolean => kind === "single stage";

/** What a coat is thinned with in the tin. */
export const CARRIERS = ["solvent", "water"] as const;
export type Carrier = (typeof CARRIERS)[number];
