import { inRange } from "../../kernel/guard";
import { GUN_BOUNDS } from "../bounds";
import { SHEET_K } from "../product/sheet-air";
import { type GunSettings, deposit } from "../spray/deposit";
import { fluidFromTurns } from "../spray/fluid-from-turns";
import { needleFlow } from "../spray/needle-flow";
import { USUAL_GUN } from "../spray/usual-gun";
import type { HouseWay, PlannedCoat } from "./way";

/** What of a coat changes the gun. */
export type CoatChange = Pick<PlannedCoat, "speedFactor" | "fluidFactor" | "distanceFactor" | "pressureShift_Pa" | "overlapShift"> &
  Partial<Pick<PlannedCoat, "reducerShift">>;

type Gun = GunSettings & { turns?: number | null };

const within = (value: number, [least, most]: readonly [number, number]) => Math.min(most, Math.max(least, value));
const OVERLAP = [0, 0.9] as const;
const FAN = [GUN_BOUNDS.fan_m.min, GUN_BOUNDS.fan_m.max] as const;
/** A usual clear on a usual day, for what one gun lays against another. */
const USUAL = { air_K: SHEET_K, speed: "medium", volumeSolids: 0.5, reducer: 0 } as const;

/** What more reducer lets through the needle as it stands; a usual clear, mixed as it comes. */
const thinned = ({ reducerShift = 0 }: CoatChange): number => needleFlow(Math.max(0, -reducerShift), Math.max(0, reducerShift));

/** The gun in the hand as a coat of the way is sprayed with it: what is thinned more flows more through the same needle. */
export function coatGun<G extends Gun>(gun: G, coat: CoatChange): G {
  return withFluid(gun, coat, thinned(coat));
}

function withFluid<G extends Gun>(gun: G, coat: CoatChange, thinner: number): G {
  const { fan_m, turns } = gun;
  return {
    ...gun,
    handSpeed_m_s: gun.handSpeed_m_s * coat.speedFactor,
    fluidRate_m3_s: gun.fluidRate_m3_s * coat.fluidFactor * thinner,
    distance_m: gun.distance_m * coat.distanceFactor,
    pressure_Pa: gun.pressure_Pa + coat.pressureShift_Pa,
    overlap: within(gun.overlap + coat.overlapShift, OVERLAP),
    // A needle gives more with its turns, near enough in proportion over so small a change.
    ...(typeof turns === "number" ? { turns: turns * coat.fluidFactor } : {}),
    // A fan opens with the distance, as far as one is known.
    ...(fan_m === undefined ? {} : { fan_m: fan_m === null ? null : within(fan_m * coat.distanceFactor, FAN) }),
  };
}

/** The gun in the hand, from one that a coat of the way was sprayed with: what {@link coatGun} did taken out again. */
export const handOf = <G extends Gun>(sprayed: G, c: CoatChange): G =>
  withFluid(
    sprayed,
    {
      speedFactor: 1 / c.speedFactor,
      fluidFactor: 1 / c.fluidFactor,
      distanceFactor: 1 / c.distanceFactor,
      pressureShift_Pa: -c.pressureShift_Pa,
      overlapShift: -c.overlapShift,
    },
    1 / thinned(c),
  );

/** Film of a coat against one of the gun in the hand, over the panel; nothing where only spots are sprayed. */
export function coatShare(coat: PlannedCoat, gun: GunSettings): number {
  if (coat.zone !== "whole") return 0;
  const laid = inRange(() => deposit(coatGun(gun, coat), { ...USUAL, reducer: coat.reducerShift }).dry_m / deposit(gun, USUAL).dry_m);
  return laid ?? coat.fluidFactor / coat.speedFactor;
}

/** A part lies where it is less steep than this: gravity pulls half as much there at most. Default of ours. */
const LYING_RAD = Math.PI / 6;
export const isLying = (tilt_rad: number): boolean => Math.abs(Math.sin(tilt_rad)) < Math.sin(LYING_RAD);

/**
 * The gun that a way starts with where nobody has set one: its distance, pressure, needle and fan, and the hand at the speed that lays a usual film
 * with them upright. Common practice: closer, or with an open needle, it takes a faster hand; a lying part gets more. @throws RangeError
 */
export function startGun({ gun }: Pick<HouseWay, "gun">, { lying = false }: { lying?: boolean } = {}): GunSettings & { turns: number } {
  const needle = (turns: number | null) => (turns === null ? {} : { turns, fluidRate_m3_s: fluidFromTurns(turns).fluidRate_m3_s });
  const own = {
    ...USUAL_GUN,
    distance_m: gun.distance_m ?? USUAL_GUN.distance_m,
    pressure_Pa: gun.pressure_Pa ?? USUAL_GUN.pressure_Pa,
    ...needle(gun.turns),
    ...(gun.fan_m === null ? {} : { fan_m: gun.fan_m }),
  };
  const { distance_m, pressure_Pa, turns, fan_m } = gun;
  const asUsual = [distance_m, pressure_Pa, turns, fan_m].every((x) => x === null);
  const share = asUsual ? 1 : deposit(own, USUAL).dry_m / deposit(USUAL_GUN, USUAL).dry_m;
  return { ...own, handSpeed_m_s: own.handSpeed_m_s * share, ...(lying ? needle(gun.lyingTurns) : {}) };
}
