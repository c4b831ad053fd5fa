import { keysOf } from "../../kernel/keys";

export const FINISHES = {
  match: "Match the neighbour's texture",
  flat: "Show flat",
  asSprayed: "Gloss as sprayed",
  matte: "Matte",
} as const;
export type Finish = keyof typeof FINISHES;
export const FINISH_KEYS = keysOf<Finish>(FINISHES);

/** A coat's place: what is laid on a part of it adds nothing to the clear that is counted on over the panel. */
export const COAT_ZONES = {
  whole: "whole part",
  lower: "lower half",
  upper: "upper half",
  edges: "edges only",
  spots: "repaired spots",
} as const;
export type CoatZone = keyof typeof COAT_ZONES;
export const COAT_ZONE_KEYS = keysOf<CoatZone>(COAT_ZONES);

/** What a coat is called; only a tack coat is there to grip. */
export const COAT_ROLES = ["full wet", "tack", "closed", "finish", "thin", "patch", "flow"] as const;

/** How a build is sanded flat. */
export const FLATTEN_BY = { machine: "machine, soft pad", hand: "hand" } as const;
export type FlattenBy = keyof typeof FLATTEN_BY;
