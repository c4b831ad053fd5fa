import type { CorrectionSchoolId } from "../correction/schools";
import type { SourceKey } from "../../kernel/sources";

export const FINISHES = {
  match: "Match the neighbour's texture",
  flat: "Show flat",
  asSprayed: "Gloss as sprayed",
  matte: "Matte",
} as const;
export type Finish = keyof typeof FINISHES;
export const FINISH_KEYS = Object.keys(FINISHES) as [Finish, ...Finish[]];

export interface PlannedCoat {
  role: string;
  /** Hand speed against the usual: above 1 lays less. */
  speedFactor: number;
  /** Flash after it against the sheet's least: above 1 by choice; below 1 counts as 1. */
  flashFactor: number;
  /** Where it is sprayed: over the whole part, or only on the spots that were repaired. */
  zone?: CoatZone;
  /** Cured, sanded flat and cleaned after it, before the next. */
  sandAfter?: boolean;
}
/** A coat's place: what is laid on spots adds nothing to the clear of the panel. */
export const COAT_ZONES = { whole: "the whole part", spots: "repaired spots only" } as const;
export type CoatZone = keyof typeof COAT_ZONES;

export interface HouseWay {
  id: string;
  name: string;
  goodFor: string;
  price: string;
  source: SourceKey;
  finish: Finish;
  coats: readonly PlannedCoat[];
  correction: CorrectionSchoolId;
}

const full = (role = "full wet"): PlannedCoat => ({ role, speedFactor: 1, flashFactor: 1 });

/** The schools of the trade, named by us. Numbers are common practice; a shop picks one, a job may differ. */
export const HOUSE_WAYS = [
  {
    id: "two-full",
    name: "Two full wet",
    goodFor: "Production panels beside textured neighbours",
    price: "Two chances for a run on a cold vertical",
    source: "common-practice",
    finish: "match",
    coats: [full(), full()],
    correction: "spot",
  },
  {
    id: "tack-full",
    name: "Tack, then full",
    goodFor: "Verticals and steep shapes: the first coat grips",
    price: "Dry tack shows as peel under the full coat",
    source: "common-practice",
    finish: "match",
    coats: [{ role: "tack", speedFactor: 2.4, flashFactor: 0.5 }, { role: "full wet", speedFactor: 0.85, flashFactor: 1 }, full()],
    correction: "spot",
  },
  {
    id: "closed-finish",
    name: "Closed, then finish",
    goodFor: "Even film, gloss as sprayed",
    price: "The finish coat has to be right",
    source: "common-practice",
    finish: "asSprayed",
    coats: [
      { role: "closed", speedFactor: 1.15, flashFactor: 1 },
      { role: "finish", speedFactor: 0.95, flashFactor: 1 },
    ],
    correction: "spot",
  },
  {
    id: "three-flat",
    name: "Three and flat",
    goodFor: "Restoration: film to sand flat and polish",
    price: "A day more, more clear, solvent needs time to leave",
    source: "common-practice",
    finish: "flat",
    coats: [full(), full(), full()],
    correction: "long",
  },
  {
    id: "four-flat",
    name: "Four for show",
    goodFor: "Show cars that will be sanded flat more than once",
    price: "Film near the most a clear takes; solvent leaves slowly",
    source: "common-practice",
    finish: "flat",
    coats: [full(), full(), full(), full()],
    correction: "long",
  },
  {
    id: "three-sand-three",
    name: "Three, sand, three",
    goodFor: "The flattest finish without a heavy coat",
    price: "A second day, and twice the clear",
    source: "common-practice",
    finish: "flat",
    coats: [full(), full(), { ...full(), sandAfter: true }, full(), full(), full()],
    correction: "long",
  },
  {
    id: "patch-first",
    name: "Patch, then full",
    goodFor: "Repaired spots that tend to die back",
    price: "An edge of the patch may show; feather it",
    source: "common-practice",
    finish: "match",
    coats: [{ role: "patch", speedFactor: 2, flashFactor: 1, zone: "spots" }, full(), full()],
    correction: "spot",
  },
  {
    id: "many-thin",
    name: "Many thin",
    goodFor: "Small curved parts on stands",
    price: "Time; each coat nearly dry",
    source: "common-practice",
    finish: "asSprayed",
    coats: Array.from({ length: 5 }, () => ({ role: "thin", speedFactor: 2, flashFactor: 0.6 })),
    correction: "hand",
  },
  {
    id: "matte-two",
    name: "Matte, two closed",
    goodFor: "Matte: whole part, no polish afterwards",
    price: "Any nib or run means the part again",
    source: "common-practice",
    finish: "matte",
    coats: [full("closed"), full("closed")],
    correction: "polish",
  },
] as const satisfies readonly HouseWay[];

export type HouseWayId = (typeof HOUSE_WAYS)[number]["id"];
export const HOUSE_WAY_IDS = HOUSE_WAYS.map((w) => w.id) as [HouseWayId, ...HouseWayId[]];

/** One way. @throws RangeError for an unknown id. */
export function houseWay(id: string): HouseWay {
  const found = HOUSE_WAYS.find((w) => w.id === id);
  if (!found) throw new RangeError(`house way must be one of ${HOUSE_WAY_IDS.join(", ")}, got ${id}`);
  return found;
}

/** The coat a way asks for at a number (the last role repeats when more coats are sprayed). */
export function plannedCoat(way: HouseWay, number: number): PlannedCoat {
  return way.coats[Math.min(number, way.coats.length) - 1] ?? full();
}

/** Film of a coat against a usual one: what its hand speed leaves of it over the panel; nothing where only spots are sprayed. */
export const coatShare = ({ speedFactor, zone = "whole" }: PlannedCoat): number => (zone === "whole" ? 1 / speedFactor : 0);

/** Coats of a way up to a count, each with the next. */
export const plannedCoats = (way: HouseWay, count: number): PlannedCoat[] =>
  Array.from({ length: count }, (_, i) => plannedCoat(way, i + 1));
