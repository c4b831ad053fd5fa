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
