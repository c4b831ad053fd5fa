import type { SourceKey } from "../../kernel/sources";

/** What moves the gloss of a matte clear, by direction. Size is only given where a shop's own cards show it. */
export const MATTE_TENDENCIES = [
  { id: "hardener", what: "Excess hardener", moves: "up", why: "more binder closes the surface", source: "common-practice" },
  {
    id: "film-thick",
    what: "Thick film, above about 50 µm",
    moves: "up",
    why: "matting particles sink away from the surface",
    source: "common-practice",
  },
  { id: "wet", what: "Sprayed too wet", moves: "up", why: "it stays open longer and levels over the particles", source: "common-practice" },
  {
    id: "forced",
    what: "Forced drying instead of air",
    moves: "up",
    why: "it sets before it has shrunk onto the particles",
    source: "common-practice",
  },
  { id: "short-flash", what: "Short flash", moves: "up", why: "coats act as one thick wet film", source: "common-practice" },
  { id: "thinner", what: "Excess thinner", moves: "down", why: "a thin film shows more of the particles", source: "common-practice" },
  { id: "dry", what: "Dry application", moves: "down", why: "overspray roughens the surface", source: "common-practice" },
  {
    id: "uneven",
    what: "Overloads, no staggered overlap, light then full coat",
    moves: "patchy",
    why: "film differs from stripe to stripe",
    source: "common-practice",
  },
] as const satisfies readonly { id: string; what: string; moves: "up" | "down" | "patchy"; why: string; source: SourceKey }[];

/** What a matte job may not do and what it must do, each with its reason. */
export const MATTE_RULES = [
  { id: "whole", rule: "The whole part to its edges; no blending out", why: "a blend edge in matte shows for good" },
  {
    id: "cover",
    rule: "The whole repair area covered by base or blender first",
    why: "bare and covered ground read differently under matte",
  },
  { id: "below", rule: "Gloss clear below dry, sanded and cleaned", why: "matte does not hold on a shiny spot and shows every fault" },
  { id: "weigh", rule: "Mix by weight on a scale", why: "a per cent of matting agent is a gloss unit" },
  { id: "card", rule: "Card sprayed by the same hand, oriented as the part", why: "hand and orientation move gloss" },
  { id: "coats", rule: "Two closed, even coats; never a mist coat first", why: "light then full leaves stripes" },
  { id: "flash", rule: "15 min between coats and 15 min before any heat", why: "short flash and early heat raise gloss" },
  { id: "clean", rule: "Dust out, tack, clothing, nothing above the part", why: "no nib can be polished out afterwards" },
  {
    id: "polish",
    rule: "No sanding or polishing afterwards; a nib, run or mark means the part again",
    why: "polish turns matte into a bright spot",
  },
] as const;
export const MATTE_RULE_IDS = MATTE_RULES.map((r) => r.id) as [string, ...string[]];
