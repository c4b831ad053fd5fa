import { requireNumber } from "../kernel/guard";
import { GUN_BOUNDS } from "../models/bounds";
import type { GunAtWork } from "../models/panel-film/land";
import type { PlaceOnPanel } from "../models/panel-film/over-part";
import { type GunSettings, fanOf } from "../models/spray/deposit";
import { type FanPattern, fanBalance } from "../models/spray/fan-pattern";

/** Where the gun was at a moment of a coat, and whether its trigger was pulled from there on. */
export interface HandMoment extends PlaceOnPanel {
  /** Since the coat was begun. */
  t_s: number;
  distance_m: number;
  pulled: boolean;
}

/** A gun as it is set, however it is held. */
export interface BenchGun extends Pick<GunSettings, "fluidRate_m3_s" | "pressure_Pa"> {
  /** Width of its fan over that of a usual one at the same distance. */
  fanShare: number;
  /** Its fan where it does not lie even. */
  pattern?: FanPattern | undefined;
}

/** One coat as a hand sprayed it. */
export interface CoatOfHand {
  gun: BenchGun;
  reducer: number;
  /** The fan lies: passes go up and down. */
  turned: boolean;
  hand: readonly HandMoment[];
  /** From its last moment to the first of the next coat; so long that nothing moves, after the last. */
  flash_s: number;
}

/** Along the rows of a coat, and across them. */
export const axesOf = (turned: boolean): { along: (m: PlaceOnPanel) => number; across: (m: PlaceOnPanel) => number } =>
  turned ? { along: (m) => m.y_m, across: (m) => m.x_m } : { along: (m) => m.x_m, across: (m) => m.y_m };

/** A gun as its settings have it, for any distance. */
export const benchGun = (gun: Omit<GunSettings, "handSpeed_m_s" | "overlap">): BenchGun => ({
  fluidRate_m3_s: gun.fluidRate_m3_s,
  pressure_Pa: gun.pressure_Pa,
  fanShare: fanOf(gun) / fanOf({ distance_m: gun.distance_m }),
});

/** A gun with its needle, air and fan so many times what the way wants, and a fault that its fan may have: what is out of balance splits or drowns it. @throws RangeError */
export function setOtherwise(
  gun: BenchGun,
  { fluid = 1, air = 1, fan = 1 }: { fluid?: number; air?: number; fan?: number },
  fault: FanPattern = { balance: 0, end: 0 },
): BenchGun {
  const pattern = { balance: fanBalance(air, fluid) + fault.balance, end: fault.end };
  return {
    fluidRate_m3_s: gun.fluidRate_m3_s * fluid,
    pressure_Pa: gun.pressure_Pa * air,
    fanShare: gun.fanShare * fan,
    pattern: pattern.balance === 0 && pattern.end === 0 ? undefined : pattern,
  };
}

/** The gun at a distance: its fan opens with it. */
export const gunAt = ({ fanShare, ...gun }: BenchGun, distance_m: number): GunAtWork => ({
  ...gun,
  distance_m,
  fan_m: fanShare * fanOf({ distance_m }),
});

/** The gun never stands nearer or farther than the spray model reaches. */
export const heldAt = (distance_m: number): number => Math.min(GUN_BOUNDS.distance_m.max, Math.max(GUN_BOUNDS.distance_m.min, distance_m));

const REACH_M = 10;
/** A coat that a hand may have sprayed: times go on, places are places. @throws RangeError */
export function requireCoat(coat: CoatOfHand): CoatOfHand {
  requireNumber("flash_s", coat.flash_s, { min: 0, max: 30 * 86_400 });
  requireNumber("fanShare", coat.gun.fanShare, { min: 0.2, max: 2 });
  requireNumber("pattern.balance", coat.gun.pattern?.balance ?? 0, { min: -5, max: 5 });
  requireNumber("pattern.end", coat.gun.pattern?.end ?? 0, { min: -1, max: 1 });
  let before_s = 0;
  for (const { t_s, x_m, y_m, distance_m } of coat.hand) {
    before_s = requireNumber("t_s", t_s, { min: before_s, max: 3600 });
    requireNumber("x_m", x_m, { min: -REACH_M, max: REACH_M });
    requireNumber("y_m", y_m, { min: -REACH_M, max: REACH_M });
    requireNumber("distance_m", distance_m, GUN_BOUNDS.distance_m);
  }
  return coat;
}
