import type { LayerKey } from "../models/prep/layer-names";
import type { LayerCoat, LayerState } from "./layers";

/** One of the layers below the clear; undefined: nothing of it is planned or on. */
export const layerOf = (below: readonly LayerState[], layer: LayerKey | null): LayerState | undefined =>
  below.find((l) => l.layer === layer);

/** The colour below the clear, whose sheet decides the cleaners; undefined: none. */
export const colourBelow = (below: readonly LayerState[]): LayerState | undefined =>
  below.find((l) => l.layer === "base" || l.layer === "ground");

/** All coats of a layer, or of several, on either face. */
export const coatsOfLayers = (layers: readonly LayerState[]): LayerCoat[] => layers.flatMap((l) => [...l.back, ...l.front]);
