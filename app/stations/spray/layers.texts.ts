import type { LayerKey } from "#core/models/prep/layer-names";

/** Not sprayed; or as is usual for the layer, without a sheet. */
export const NOT_SPRAYED = "";
export const AS_USUAL = "usual";

/** Names of a layer's fields. */
export const productField = (layer: LayerKey) => `${layer}-product`;
export const coatsField = (layer: LayerKey) => `${layer}-coats`;
