import { keysOf } from "../../kernel/keys";

/** What is sprayed below the clear, from below up. */
export const LAYER_NAMES = {
  prime: "primer",
  seal: "sealer",
  ground: "ground coat",
  base: "base coat",
  blend: "blend coat",
  drop: "drop coat",
} as const;
export type LayerKey = keyof typeof LAYER_NAMES;
export const LAYER_KEYS = keysOf<LayerKey>(LAYER_NAMES);

/** How the colour ends at the panel's edge. Painters disagree: a blend hides a small difference of colour, a butt leaves the neighbour alone. */
export const COLOUR_EDGES = { blend: "blended into the neighbour", butt: "butted at the edge" } as const;
export type ColourEdge = keyof typeof COLOUR_EDGES;

const UNCOLOURED = ["prime", "seal", "ground"] as const satisfies readonly LayerKey[];
/** What may lie below a topcoat; one that is the colour itself has no base below. */
export const layersUnder = (coloured: boolean): readonly LayerKey[] => (coloured ? UNCOLOURED : LAYER_KEYS);
