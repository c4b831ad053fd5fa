import type { SourceKey } from "../../kernel/sources";
import { type BenchHabits, USUAL_HABITS } from "../correction/bench-habits";
import type { CorrectionSchoolId } from "../correction/schools";
import type { RunSchool } from "../correction/run-work";
import type { Trigger } from "../spray/trigger";
import { FLAT_M, U_FLAT_M } from "../trade-limits";
import type { CoatZone, Finish, FlattenBy } from "./terms";

/** What a coat, and a way, may have: the same for a form that asks it. */
export const COAT_LIMITS = {
  speedFactor: { min: 0.4, max: 4 },
  flashFactor: { min: 0.3, max: 10 },
  fluidFactor: { min: 0.4, max: 2.5 },
  distanceFactor: { min: 0.5, max: 2 },
  pressureShift_Pa: { min: -1.5e5, max: 1.5e5 },
  overlapShift: { min: -0.4, max: 0.4 },
  reducerShift: { min: 0, max: 0.3 },
} as const;
export const WAY_LIMITS = {
  coats: 12,
  nameLength: 40,
  noteLength: 120,
  distance_m: { min: 0.08, max: 0.35 },
  pressure_Pa: { min: 0.7e5, max: 4e5 },
  turns: { min: 0.25, max: 6 },
  fan_m: { min: 0.05, max: 0.6 },
  lastPaper: { min: 400, max: 2000 },
  flattenGrit: { min: 400, max: 3000 },
  flattenRemoval_m: { min: 1e-6, max: 60e-6 },
  flattenU_m: { min: 0.5e-6, max: 20e-6 },
  airBeforeHeat_s: { min: 60, max: 7200 },
  correctAfter_s: { min: 0, max: 30 * 86_400 },
} as const;

/** A coat as a way means it: how it is sprayed against the gun in the hand, and how long it is left. */
export interface PlannedCoat {
  role: string;
  /** Hand speed against the usual: above 1 lays less. */
  speedFactor: number;
  /** Flash after it against the sheet's least: above 1 by choice; below 1 counts as 1. */
  flashFactor: number;
  /** Fluid, and distance, against the usual; pressure added to it; overlap added to it; reducer added to what is mixed, as a share. */
  fluidFactor: number;
  distanceFactor: number;
  pressureShift_Pa: number;
  overlapShift: number;
  reducerShift: number;
  /** Where it is sprayed: over the whole part, or only on the spots that were repaired. */
  zone: CoatZone;
  /** Cured, sanded flat and cleaned after it, before the next. */
  sandAfter: boolean;
}
/** What a coat has where nobody says otherwise. */
export const COAT_DEFAULTS = {
  fluidFactor: 1,
  distanceFactor: 1,
  pressureShift_Pa: 0,
  overlapShift: 0,
  reducerShift: 0,
  zone: "whole",
  sandAfter: false,
} as const satisfies Partial<PlannedCoat>;

/** How a gun is held and set that nobody has set yet: near with a fast hand, or far; low pressure or high; needle closed or open, fan narrow or wide. */
export interface WayGun {
  distance_m: number | null;
  pressure_Pa: number | null;
  /** Needle, turns out from closed: upright, and for a lying part, which takes more. */
  turns: number | null;
  lyingTurns: number | null;
  fan_m: number | null;
}

/** A house way with all that a shop may change in it. SI; a null is left to the gun, the sheet or the finish. */
export interface HouseWayBody {
  name: string;
  goodFor: string;
  price: string;
  finish: Finish;
  coats: PlannedCoat[];
  gun: WayGun;
  trigger: Trigger;
  /** Last paper below the base: the finer, the flatter what the clear is laid on. */
  lastPaper: number;
  /** How a build is sanded flat before the next. */
  flatten: { grit: number; by: FlattenBy; removal_m: number; u_m: number };
  airBeforeHeat_s: number | null;
  /** Time after the last coat before it is corrected, where that is longer than the sheet asks. */
  correctAfter_s: number;
  correction: CorrectionSchoolId;
  runSchool: RunSchool;
  /** How the correction is worked, whichever ladder. */
  bench: BenchHabits;
}
/** What a way has where nobody says otherwise. */
export const WAY_DEFAULTS = {
  goodFor: "",
  price: "",
  gun: { distance_m: null, pressure_Pa: null, turns: null, lyingTurns: null, fan_m: null },
  trigger: "released",
  lastPaper: 600,
  flatten: { grit: 800, by: "machine", removal_m: FLAT_M, u_m: U_FLAT_M },
  airBeforeHeat_s: null,
  correctAfter_s: 0,
  runSchool: "block",
  bench: USUAL_HABITS,
} as const satisfies Partial<HouseWayBody>;
export interface HouseWay extends HouseWayBody {
  id: string;
  source: SourceKey;
}
/** A way of the shop's own, as it was kept. */
export const ownWay = (id: string, body: HouseWayBody): HouseWay => ({ ...body, id, source: "house-way" });

/** The coat a way asks for at a number from 1 (the last one repeats when more coats are sprayed). */
export const plannedCoat = (way: Pick<HouseWay, "coats">, number: number): PlannedCoat =>
  way.coats[Math.min(number, way.coats.length) - 1]!;

/** Coats of a way up to a count, each with the next. */
export const plannedCoats = (way: Pick<HouseWay, "coats">, count: number): PlannedCoat[] =>
  Array.from({ length: count }, (_, i) => plannedCoat(way, i + 1));
