import { HALVES } from "../kernel/geometry/region";
import type { HoldUntil } from "../models/defects/holds";
export { DEFECT_KINDS, type DefectKind, isFold } from "../models/defects/kinds";
/** When a film reading was taken. */
export const PHASES = { before: "before clear", after: "after clear", recheck: "after sanding" } as const;
export type Phase = keyof typeof PHASES;

/** What a plan was found to be: kept with it. */
export const VERDICTS = ["safe", "caution", "stop", "uncertain", "none"] as const;
export type Verdict = (typeof VERDICTS)[number];

/** What of a panel a plan may level instead of all of it. */
export const PANEL_PARTS = { ...HALVES, marked: "only where it is marked" } as const;
export type PanelPart = keyof typeof PANEL_PARTS;

/** What came of a panel's coats, as the painter tells it. */
export const OUTCOMES = { right: "right", ran: "ran", peeled: "peeled" } as const;
export type Outcome = keyof typeof OUTCOMES;

/** What is looked at before a panel goes out. */
export const OUT_POINTS = ["coats", "cured", "film", "faults", "texture", "gloss", "colour", "coverage"] as const;
export type OutPoint = (typeof OUT_POINTS)[number];

/** Colour beside the neighbour, by eye, and the light it was looked at in. */
export const EYE_COLOURS = { same: "the same", near: "near", off: "off" } as const;
export type EyeColour = keyof typeof EYE_COLOURS;
export const EYE_LIGHTS = { daylight: "daylight in the shade", sun: "sun", lamp: "strong lamp", booth: "booth tubes" } as const;
export type EyeLight = keyof typeof EYE_LIGHTS;

/** What a marked fault waited for, once it is done. */
export const SEEN_TO = {
  hard: "hard now",
  dry: "dry now",
  stripped: "taken back to what is sound",
  resprayed: "sprayed again below",
} as const satisfies Record<HoldUntil, string>;

/** Faces of a part; the front is the one that is read and judged. */
export const SIDES = ["front", "back"] as const;
export type Side = (typeof SIDES)[number];

/** How a part is held while it is sprayed. */
export const PART_HELD = { upright: "upright", laid: "laid flat", hung: "hung", held: "held by hand" } as const;
export type PartHeld = keyof typeof PART_HELD;
