import type { Point } from "../kernel/geometry/geometry";
import type { Region } from "../kernel/geometry/region";
import type { BenchHabits } from "../models/correction/bench-habits";
import type { ClearedStep, ShopRemoval, clearingPlan } from "../models/correction/clearing";
import type { Removal, Texture } from "../models/correction/removal-plan";
import type { CorrectionSchool } from "../models/correction/schools";
import type { RunSchool } from "../models/correction/run-work";
import type { PlanStep } from "../record/bodies";
import type { PanelPart as PlanPartName } from "../record/kinds";
import type { ClearThere } from "./film-judge";
import { sectionsOf } from "./zone-needs";
import type { ZoneTask } from "./zone-work";

/** Clear at places, as the judge has it; null where nothing is read. */
export type ClearReader = ((places: readonly Point[]) => ClearThere[]) | null;

export interface ZoneChoice {
  schoolId: string;
  runSchool: RunSchool | null;
  texture: Texture;
  /** Width of the rim. */
  tape_m: number;
  floor_m: number;
  /** The rim is left under tape, or worked by hand; body lines are worked by hand, or left under tape. */
  edges?: "left" | "hand";
  lines?: "hand" | "left";
  /** What of the panel is levelled; what lies elsewhere is worked at its own place. Left away: all of it. */
  part?: PlanPartName | null;
  /** Craters and pops are filled with a drop of clear before they are levelled. */
  fill?: boolean;
  /** How the shop polishes, wets its discs, cuts a guard, takes nibs off: usual where nobody says. */
  habits?: BenchHabits;
  /** This shop's own removal, where it has been taken over. */
  shop?: ShopRemoval;
}

export const ZONE_KINDS = ["run", "spot", "flat", "line", "edge"] as const;
export type ZoneKind = (typeof ZONE_KINDS)[number];

/** A part of the panel that is worked in its own way. */
export interface PlanZone {
  kind: ZoneKind;
  /** Where it lies; empty for the flat. */
  at: Point[];
  /** Outside the part that is levelled: worked there alone, from paper to polish. */
  elsewhere?: boolean;
  /** Some of the spots are filled first. */
  filled?: boolean;
  area_m2: number;
  /** So many pads' breadths of work. */
  sections: number;
  way: "machine" | "hand" | "left";
  removal: Removal;
  /** Clear there now and after the work, the thinnest of its places; null when no spot tells it. */
  now: ClearThere | null;
  left: ClearThere | null;
  minutes: number;
  /** Marks of each step against what the next takes off: the proof that none is left behind. */
  chain: ClearedStep[];
}

/** Everything the parts of a plan share. */
export interface Setting {
  reach: "panel" | "spots" | "polish";
  school: CorrectionSchool;
  ladder: ReturnType<typeof clearingPlan>;
  /** What the school takes off over the whole panel. */
  onPanel: Removal;
  shop: ShopRemoval;
  habits: BenchHabits;
  floor_m: number;
  read: ClearReader;
  /** The part that is levelled; null: the whole panel. */
  region: Region | null;
}
export const NO_REMOVAL: Removal = { removal_m: 0, u_m: 0 };

type ZoneStep = Partial<PlanStep> & Pick<PlanStep, "zone">;
export const stepOf = (task: ZoneTask, more: ZoneStep): PlanStep => ({
  name: task.name,
  use: task.use,
  tool: task.tool,
  wet: task.wet,
  doThis: task.doThis,
  lookFor: task.lookFor,
  removal_m: 0,
  u_m: 0,
  common_m: {},
  at: [],
  texture_m: 0,
  default_m: 0,
  own: false,
  passes: 1,
  minutes: 0,
  gloss60_GU: null,
  ...more,
});
export const removalOf = ({ removal_m, u_m, common_m }: Removal) => ({ removal_m, u_m, common_m: { ...common_m } });
export const atOf = (places: readonly Point[]) => places.map(([x_m, y_m]) => ({ x_m, y_m }));

/** A zone with the clear at its thinnest place, now and after the work. */
export function zoneOf(
  z: Omit<PlanZone, "now" | "left" | "sections"> & Partial<Pick<PlanZone, "sections">>,
  places: readonly Point[],
  read: ClearReader,
): PlanZone {
  const there = places.length ? (read?.(places) ?? []) : [];
  const now = there.length ? there.reduce((a, t) => (t.clear_m - 2 * t.u_m < a.clear_m - 2 * a.u_m ? t : a)) : null;
  return {
    sections: sectionsOf(z.area_m2),
    ...z,
    now,
    left: now && { clear_m: now.clear_m - z.removal.removal_m, u_m: Math.hypot(now.u_m, z.removal.u_m) },
  };
}

export interface PlanPart {
  zones: PlanZone[];
  steps: PlanStep[];
}
