import type { DefectKind } from "./kinds";

/** Work on a film that a fault may hold back: paper and polish, and more clear on top. */
export type HeldWork = "paper" | "clear";
/** What has to come first. */
export type HoldUntil = "hard" | "dry" | "stripped" | "resprayed";

/** What a marked fault says about work on the film that it is in. */
export interface FaultHold {
  holds: readonly HeldWork[];
  /** Round the places where it is marked, or on the whole panel: a film that is soft anywhere was mixed so everywhere. */
  where: "here" | "panel";
  until: HoldUntil;
  /** Whether the work would do harm, or most likely be done twice. */
  level: "stop" | "caution";
}

const hold = (level: FaultHold["level"], until: HoldUntil, holds: readonly HeldWork[], where: FaultHold["where"] = "here"): FaultHold => ({
  holds,
  where,
  until,
  level,
});
const BOTH = ["paper", "clear"] as const;
const nothing = null;

/**
 * Whether each kind holds work back, what and until when. Common practice with no source: lifted film is taken back to sound clear before anything
 * else, a soft film waits, what is through is not worked on; over what still dries paper only opens more.
 */
export const HOLDS = {
  run: nothing,
  sag: nothing,
  curtain: nothing,
  peel: nothing,
  peelFine: nothing,
  drySpray: nothing,
  nib: nothing,
  fibre: nothing,
  crater: nothing,
  pop: hold("caution", "dry", BOTH),
  pinhole: hold("stop", "stripped", BOTH),
  dieBack: hold("caution", "dry", ["paper"]),
  microFoam: hold("stop", "stripped", ["paper"]),
  blush: hold("caution", "dry", BOTH),
  mottle: nothing,
  glossPatch: nothing,
  dryTexture: nothing,
  scratches: hold("caution", "dry", ["paper"]),
  edgeLift: hold("stop", "stripped", BOTH),
  peeling: hold("stop", "stripped", BOTH),
  haze: nothing,
  trails: nothing,
  burn: hold("stop", "resprayed", ["paper"]),
  cutThrough: hold("stop", "resprayed", BOTH),
  softFilm: hold("stop", "hard", BOTH, "panel"),
  lostTexture: nothing,
  wrinkling: hold("stop", "stripped", BOTH),
  halo: hold("caution", "resprayed", ["clear"]),
  notCovered: hold("caution", "resprayed", ["clear"]),
  colourOff: hold("caution", "resprayed", ["clear"], "panel"),
  solventMark: nothing,
  dustInBase: nothing,
  waterSpots: nothing,
  overspray: nothing,
} as const satisfies Record<DefectKind, FaultHold | null>;

/** What is done before new base goes over a fault that has to be stripped: below pinholes it is filled, over what lifts goes a barrier. */
export const STRIPPED_FIRST: Partial<Record<DefectKind, readonly ("strip" | "fill" | "barrier")[]>> = {
  pinhole: ["strip", "fill"],
  microFoam: ["strip"],
  edgeLift: ["strip"],
  peeling: ["strip"],
  wrinkling: ["strip", "barrier"],
  softFilm: ["strip"],
};
export type BeforeBase = NonNullable<(typeof STRIPPED_FIRST)[DefectKind]>[number];

/** What a kind holds back; null: nothing. */
export const holdOf = (kind: DefectKind): FaultHold | null => HOLDS[kind];
