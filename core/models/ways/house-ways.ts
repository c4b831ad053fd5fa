import { COAT_DEFAULTS, type HouseWay, type HouseWayBody, type PlannedCoat, WAY_DEFAULTS, type WayGun } from "./way";

/** A coat, and a way, as it is written down here: what is as usual is left away. */
type CoatInput = Omit<PlannedCoat, keyof typeof COAT_DEFAULTS> & Partial<PlannedCoat>;
type WayInput = Omit<HouseWayBody, keyof typeof WAY_DEFAULTS | "coats"> &
  Partial<Omit<HouseWayBody, "coats" | "gun">> & { coats: CoatInput[]; gun?: Partial<WayGun> };
const coatOf = (coat: CoatInput): PlannedCoat => ({ ...COAT_DEFAULTS, ...coat });
const full = (over: Partial<CoatInput> = {}): CoatInput => ({ role: "full wet", speedFactor: 1, flashFactor: 1, ...over });

/** One pound more at the gun. */
const A_POUND_PA = 6895;

const WAYS = {
  "two-full": {
    name: "Two full wet",
    goodFor: "Production panels beside textured neighbours",
    price: "Two chances for a run on a cold vertical",
    finish: "match",
    coats: [full(), full()],
    correction: "spot",
  },
  "second-heavier": {
    name: "Second heavier",
    goodFor: "Flow from the second coat: more fluid, a pound more, a little closer",
    price: "The second coat is near its run on an upright panel",
    finish: "match",
    coats: [full(), full({ fluidFactor: 1.12, pressureShift_Pa: A_POUND_PA, distanceFactor: 0.95 })],
    correction: "spot",
  },
  "tack-full": {
    name: "Tack, then full",
    goodFor: "Verticals and steep shapes: the first coat grips",
    price: "Dry tack shows as peel under the full coat",
    finish: "match",
    coats: [{ role: "tack", speedFactor: 2.4, flashFactor: 0.5 }, full({ speedFactor: 0.85 }), full()],
    correction: "spot",
  },
  "closed-finish": {
    name: "Closed, then finish",
    goodFor: "Even film, gloss as sprayed",
    price: "The finish coat has to be right",
    finish: "asSprayed",
    coats: [full({ role: "closed", speedFactor: 1.15 }), full({ role: "finish", speedFactor: 0.95 })],
    correction: "spot",
  },
  "long-flash": {
    name: "Two with a long flash",
    goodFor: "Heavy coats or cold days: solvent leaves before the next",
    price: "Half an hour more in the booth; a set coat below",
    finish: "asSprayed",
    coats: [full({ flashFactor: 3.5 }), full()],
    airBeforeHeat_s: 20 * 60,
    correction: "spot",
  },
  "near-fast": {
    name: "Near and fast",
    goodFor: "Low pressure, little overspray, small booths",
    price: "A slow moment runs at once",
    finish: "match",
    coats: [full(), full()],
    gun: { distance_m: 0.12, pressure_Pa: 1.25e5 },
    trigger: "held",
    airBeforeHeat_s: 5 * 60,
    correction: "spot",
  },
  "far-full": {
    name: "Far and full",
    goodFor: "Large panels: open needle, wide even pattern, a turn more where they lie",
    price: "More flies past, and in the heat it lands dry",
    finish: "match",
    coats: [full(), full()],
    gun: { distance_m: 0.22, pressure_Pa: 2e5, turns: 3, lyingTurns: 4 },
    correction: "spot",
  },
  "low-closed": {
    name: "Low and closed",
    goodFor: "Small parts and small compressors: little needle, little air, little overspray",
    price: "Coarser drops: more peel with a thick clear",
    finish: "match",
    coats: [full(), full()],
    gun: { distance_m: 0.15, pressure_Pa: 1.25e5, turns: 1.75, fan_m: 0.17 },
    trigger: "released",
    correction: "spot",
  },
  "three-flat": {
    name: "Three and flat",
    goodFor: "Restoration: film to sand flat and polish",
    price: "A day more, more clear, solvent needs time to leave",
    finish: "flat",
    coats: [full(), full(), full()],
    lastPaper: 800,
    correctAfter_s: 24 * 3600,
    correction: "long",
  },
  "four-flat": {
    name: "Four for show",
    goodFor: "Show cars that will be sanded flat more than once",
    price: "Film near the most a clear takes; solvent leaves slowly",
    finish: "flat",
    coats: [full(), full(), full(), full()],
    lastPaper: 800,
    correctAfter_s: 7 * 24 * 3600,
    correction: "long",
  },
  "three-sand-three": {
    name: "Three, sand, three",
    goodFor: "The flattest finish without a heavy coat",
    price: "A second day, and twice the clear",
    finish: "flat",
    coats: [full(), full(), full({ sandAfter: true }), full(), full(), full()],
    lastPaper: 800,
    correction: "long",
  },
  "flat-reclear": {
    name: "Flat and re-clear",
    goodFor: "Glass: three coats sanded flat, then two slow ones on top",
    price: "A second day; the last two must not run",
    finish: "flat",
    coats: [
      full(),
      full(),
      full({ sandAfter: true }),
      full({ role: "flow", speedFactor: 1.05, reducerShift: 0.05 }),
      full({ role: "flow", speedFactor: 1.05, reducerShift: 0.05 }),
    ],
    lastPaper: 800,
    correction: "polish",
  },
  "patch-first": {
    name: "Patch, then full",
    goodFor: "Repaired spots that tend to die back",
    price: "An edge of the patch may show; feather it",
    finish: "match",
    coats: [full({ role: "patch", speedFactor: 2, zone: "spots" }), full(), full()],
    correction: "spot",
  },
  "many-thin": {
    name: "Many thin",
    goodFor: "Small curved parts on stands",
    price: "Time; each coat nearly dry",
    finish: "asSprayed",
    coats: Array.from({ length: 5 }, () => ({ role: "thin", speedFactor: 1.7, fluidFactor: 0.7, distanceFactor: 0.65, flashFactor: 0.6 })),
    correction: "hand",
  },
  "matte-two": {
    name: "Matte, two closed",
    goodFor: "Matte: the whole part, and nothing done to it afterwards",
    price: "Any nib or run means the part again",
    finish: "matte",
    coats: [full({ role: "closed" }), full({ role: "closed" })],
    correction: "polish",
  },
} as const satisfies Record<string, WayInput>;

export type HouseWayId = keyof typeof WAYS;

/** The schools of the trade, named by us, to be taken as they are or copied and changed. Numbers are common practice. */
export const HOUSE_WAYS: readonly HouseWay[] = Object.entries(WAYS).map(([id, way]) => ({
  ...WAY_DEFAULTS,
  ...way,
  coats: way.coats.map(coatOf),
  gun: { ...WAY_DEFAULTS.gun, ...("gun" in way ? way.gun : {}) },
  id,
  source: "common-practice",
}));

/** Every shop has it: its id says all. */
export const isOfAll = (id: string): boolean => HOUSE_WAYS.some((w) => w.id === id);

/** One of them. @throws RangeError for an unknown id. */
export function houseWay(id: string): HouseWay {
  const found = HOUSE_WAYS.find((w) => w.id === id);
  if (!found) throw new RangeError(`house way must be one of ${HOUSE_WAYS.map((w) => w.id).join(", ")}, got ${id}`);
  return found;
}

/** A coat of a usual kind, for a way that gets one more. */
export const usualCoat = () => coatOf(full());
