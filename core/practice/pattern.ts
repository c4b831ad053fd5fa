import { requireNumber } from "../kernel/guard";
import { seededRandom } from "../kernel/stats/random";
import { seedOf } from "../kernel/stats/seed-of";
import { PANEL_FILM } from "../models/panel-film/constants";
import { SPRAY } from "../models/spray/constants";
import { type FanPattern, fanBalance, fanShape } from "../models/spray/fan-pattern";

/** What is wrong with a gun whose pattern is looked at on paper. */
export const PATTERN_FAULTS = ["even", "tip", "cap", "horn", "air", "fluid", "loose"] as const;
export type PatternFault = (typeof PATTERN_FAULTS)[number];
/** What a pattern looks like. Two faults may look alike: half a turn of the cap tells them apart. */
export const PATTERN_LOOKS = ["even", "heavy end", "crescent", "split", "wet middle", "spits"] as const;
export type PatternLook = (typeof PATTERN_LOOKS)[number];
/** Names of looks, faults and mends: common practice, no source. */
export const LOOK_OF = {
  even: "even",
  tip: "heavy end",
  cap: "heavy end",
  horn: "crescent",
  air: "split",
  fluid: "wet middle",
  loose: "spits",
} as const satisfies Record<PatternFault, PatternLook>;
/** What mends a gun. */
export const MENDS = ["spray", "cleanTip", "cleanCap", "lessAir", "lessFluid", "tighten"] as const;
export type Mend = (typeof MENDS)[number];
export const MENDED_BY = {
  even: "spray",
  tip: "cleanTip",
  cap: "cleanCap",
  horn: "cleanCap",
  air: "lessAir",
  fluid: "lessFluid",
  loose: "tighten",
} as const satisfies Record<PatternFault, Mend>;

/** A short burst at paper: cells across the short way of the fan and along it. */
export const PAPER = { columns: 48, rows: 96, width_m: 0.16, height_m: 0.36 } as const;

export interface PaperAsked {
  fault: PatternFault;
  /** How far it is gone: 0 not at all, 1 as bad as it gets. */
  degree: number;
  fluidRate_m3_s: number;
  pressure_Pa: number;
  /** The air cap is turned half round: what is of the cap turns with it. */
  turned: boolean;
  /** Of one gun, so that two bursts of it differ by nothing but what was done. */
  seed: number;
}

/** How far a fault at its worst puts air and fluid out of balance, and how much heavier one end gets. Defaults of ours. */
const OUT = { driven: 0.9, drowned: 1.6, end: 0.75 } as const;
const BOW_SHARE = 0.22;
const SPITS = { drops: 26, size: 0.055, weight: 1.6 } as const;

/** What a fault does to the fan on a panel as on paper; a bow and spits are seen on paper alone. @param turned the air cap, half round */
export const faultPattern = ({ fault, degree }: Pick<PaperAsked, "fault" | "degree">, turned = false): FanPattern => ({
  balance: degree * (fault === "air" ? OUT.driven : fault === "fluid" ? -OUT.drowned : 0),
  end: degree * OUT.end * (fault === "tip" ? 1 : fault === "cap" ? (turned ? -1 : 1) : 0),
});

/**
 * A burst on paper: material in each cell, over that of an even burst's mean; all of it is what comes out of the gun. Along the fan Beta(2, 2), across it the
 * cone of the spray simulation; too much air for the fluid drives it to the ends, too little leaves it in the middle; a dirty tip or cap makes one end heavy, a
 * blocked horn hole bows the fan. Shapes are ours, made to be told apart as they are on paper; no film of the shop's comes of them.
 * @throws RangeError
 */
export function burst({ fault, degree, fluidRate_m3_s, pressure_Pa, turned, seed }: PaperAsked): Float64Array {
  const g = requireNumber("degree", degree, { min: 0, max: 1 });
  const q = requireNumber("fluidRate_m3_s", fluidRate_m3_s, { above: 0, max: 1e-4 }) / SPRAY.fluidRateRef_m3_s;
  const p = requireNumber("pressure_Pa", pressure_Pa, { above: 0, max: 6e5 }) / SPRAY.pressureRef_Pa;
  const out = faultPattern({ fault, degree: g }, turned);
  const pattern = { ...out, balance: fanBalance(p, q) + out.balance };
  const way = turned ? -1 : 1;
  const bow = BOW_SHARE * g * (fault === "horn" ? way : 0);
  const { columns, rows, width_m, height_m } = PAPER;
  const fan_m = SPRAY.fanRef_m;
  const film = new Float64Array(columns * rows);
  for (let j = 0; j < rows; j++) {
    const along = (((j + 0.5) / rows - 0.5) * height_m) / (fan_m / 2);
    if (Math.abs(along) >= 1) continue;
    const across_m = bow * fan_m * (1 - along ** 2 - 0.8);
    const share = fanShape(along, pattern);
    for (let i = 0; i < columns; i++) {
      const x = (((i + 0.5) / columns - 0.5) * width_m - across_m) / (PANEL_FILM.alongShare * fan_m);
      film[j * columns + i] = share * Math.exp(-(x ** 2) / 2);
    }
  }
  if (fault === "loose") spit(film, g, seed);
  const sum = film.reduce((a, b) => a + b, 0);
  return film.map((v) => (v * q * columns * rows) / sum);
}

/** Drops that a loose nozzle throws, anywhere in the fan and a little beside it. */
function spit(film: Float64Array, degree: number, seed: number): void {
  const random = seededRandom(seed);
  const { columns, rows } = PAPER;
  for (let n = 0; n < SPITS.drops; n++) {
    const [x, y] = [columns * (0.5 + 0.5 * (random() - 0.5)), rows * (0.5 + 0.75 * (random() - 0.5))];
    const radius = SPITS.size * columns * (0.4 + 0.6 * random());
    for (let j = 0; j < rows; j++)
      for (let i = 0; i < columns; i++) {
        const r2 = ((i - x) ** 2 + (j - y) ** 2) / radius ** 2;
        if (r2 < 6) film[j * columns + i]! += degree * SPITS.weight * Math.exp(-r2);
      }
  }
}

/** What a burst measures: how it lies, by its own moments. */
export interface BurstFigures {
  /** Share of the material in the middle quarter of the fan, over that of an even burst. */
  middle: number;
  /** Mean place along the fan, −1 to 1: which end is heavy. */
  end: number;
  /** How far the middle stands beside the ends, over the fan's width. */
  bow: number;
  /** How rough it is from cell to cell. */
  rough: number;
}

/** Share within a quarter of the half fan of 0.75·(1 − ξ²). */
const MIDDLE = { half: 0.25, even: 0.367 } as const;

/** @throws RangeError for an empty paper */
export function burstFigures(film: ArrayLike<number>): BurstFigures {
  const { columns, rows, width_m, height_m } = PAPER;
  const half_m = SPRAY.fanRef_m / 2;
  let [sum, middle, end, rough] = [0, 0, 0, 0];
  const beside = { middle: 0, middleOf: 0, ends: 0, endsOf: 0 };
  for (let j = 0; j < rows; j++)
    for (let i = 0; i < columns; i++) {
      const v = film[j * columns + i]!;
      const along = (((j + 0.5) / rows - 0.5) * height_m) / half_m;
      const x_m = ((i + 0.5) / columns - 0.5) * width_m;
      sum += v;
      end += v * along;
      if (Math.abs(along) < MIDDLE.half) {
        middle += v;
        beside.middle += v * x_m;
        beside.middleOf += v;
      } else if (Math.abs(along) > 0.6) {
        beside.ends += v * x_m;
        beside.endsOf += v;
      }
      if (i > 0 && i < columns - 1) rough += Math.abs(film[j * columns + i - 1]! + film[j * columns + i + 1]! - 2 * v);
    }
  if (!(sum > 0)) throw new RangeError("film must hold material");
  return {
    middle: middle / sum / MIDDLE.even,
    end: end / sum,
    bow: (beside.middle / beside.middleOf - beside.ends / beside.endsOf) / SPRAY.fanRef_m,
    rough: rough / sum,
  };
}

/** What is still called even. Defaults of ours. */
const EVEN = { middle: [0.8, 1.2], end: 0.06, bow: 0.03 } as const;
/** Cell to cell an even burst changes by this much; one with drops in it by more. */
const ROUGH = 0.09;

/** What a burst looks like to whoever measures it. @throws RangeError for an empty paper */
export function lookOfBurst(film: ArrayLike<number>): PatternLook {
  const f = burstFigures(film);
  if (f.rough > ROUGH) return "spits";
  if (Math.abs(f.bow) > EVEN.bow) return "crescent";
  if (Math.abs(f.end) > EVEN.end) return "heavy end";
  if (f.middle < EVEN.middle[0]) return "split";
  return f.middle > EVEN.middle[1] ? "wet middle" : "even";
}

const SEED_START = 7;
/** A gun to be looked at, by the chance of a name: as likely each fault, and none. */
export function gunByChance(name: string): Pick<PaperAsked, "fault" | "degree" | "seed"> {
  const seed = seedOf(name, SEED_START);
  const random = seededRandom(seed);
  const fault = PATTERN_FAULTS[Math.floor(random() * PATTERN_FAULTS.length)]!;
  return { fault, degree: fault === "even" ? 0 : 0.6 + 0.4 * random(), seed };
}
