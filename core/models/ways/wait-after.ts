import { inRange } from "../../kernel/guard";
import { remember } from "../../kernel/remember";
import { cureEnergyOf } from "../cure/bake-plan";
import { cureRate } from "../cure/cure-age";
import { gripTimes } from "../flow/grip";
import { CHANCE_WORDS, runChance, sagAtEdge } from "../flow/run-chance";
import { type FlowCoat, type FlowConditions, type ShopFactors, layCoats } from "../flow/simulate-coats";
import { type ProductSheet, flowsAsClear, timesAt } from "../product/sheet";
import { SHEET_K } from "../product/sheet-air";
import type { PlannedCoat } from "./way";

/** Time after which something is through that takes so long at each temperature: integrated over what the part lay in. */
export type ElapsedAt = (durationAt_s: (air_K: number) => number) => number;
/** The same where the temperature stays as it is. */
export const atConstantAir =
  (air_K: number): ElapsedAt =>
  (durationAt_s) =>
    durationAt_s(air_K);

/** Clear that has hardened so long at 20 °C is scuffed before a further coat: common practice for colour, 24 h. */
export const SCUFF_AFTER_S = 24 * 3600;
/** So near the chance that it has after the longest wait a longer one no longer helps: a default of ours. */
const HELPS = 0.02;
const SEARCH_STEPS = 24;
const CLOSE_S = 5;

/** From the end of one coat to the next: not before, as meant until, too late after. Seconds from the coat's end. */
export interface CoatWait {
  /** Cured, sanded flat and cleaned between the two. */
  sand: boolean;
  least_s: number;
  /** Which rule decides the least: the sheet, the way's own longer flash, the model (sooner it may run, or the grip coat pulls strings), or cure before sanding. */
  by: "sheet" | "way" | "run" | "grip" | "cure";
  /** As the way means it until then: the sheet's longest, or until a grip coat has locked. */
  best_s: number;
  /** Too late after this, and what that means; Infinity and null: never. */
  latest_s: number;
  late: "grip" | "scuff" | null;
  /** What the sheet says at this temperature. */
  sheet: { least_s: number; most_s: number };
  /** Sooner than this the next coat may run at an edge, by the model; null: it is likely to, however long one waits; undefined: the model does not reach. */
  runsBefore_s: number | null | undefined;
  /** When a grip coat takes no print any more and no longer holds the next one; undefined: it is none, or the model does not reach. */
  locks_s: number | undefined;
  /** The grip is gone before the sheet lets the next coat on: it goes on a set coat. */
  setsFirst: boolean;
}

export interface WaitInput {
  planned: Pick<PlannedCoat, "role" | "flashFactor" | "sandAfter">;
  sheet: ProductSheet;
  through: ElapsedAt;
  /** The build's coats up to the one just on, each with the wait after it (the last one's is what is asked for). */
  build: readonly FlowCoat[];
  conditions: FlowConditions;
  /** What the next coat is sprayed with. */
  next: Pick<FlowCoat, "gun" | "reducer">;
  shop?: ShopFactors | undefined;
}

/**
 * The one window between two coats, asked by clock, booth view, coat plan, booth plan and calendar. The sheet's times at the temperatures that
 * were; a way may wait longer than the sheet's least, never shorter; a next coat that is likely to run opens it later, until that is unlikely or waiting helps no more; a grip coat
 * opens it when it pulls no strings and closes it when it takes no print, any other clear when it has hardened so far that it must be scuffed.
 * @throws RangeError for a build without coats
 */
export function waitAfter({ planned, sheet, through, build, conditions, next, shop }: WaitInput): CoatWait {
  if (build.length === 0) throw new RangeError("build must have at least 1 coat, got 0");
  const least_s = through((T) => timesAt(sheet, T).flashMin_s);
  const most_s = Math.max(
    least_s,
    through((T) => timesAt(sheet, T).flashMax_s),
  );
  const energy_J_mol = cureEnergyOf(sheet);
  const aged = (age_s: number) => through((T) => age_s / cureRate(T, { reference_K: SHEET_K, energy_J_mol }));
  const common = { sheet: { least_s, most_s }, setsFirst: false };
  if (planned.sandAfter) {
    const soonest_s = aged(sheet.sandAfter_s);
    return {
      ...common,
      sand: true,
      least_s: soonest_s,
      by: "cure",
      best_s: Infinity,
      latest_s: Infinity,
      late: null,
      runsBefore_s: undefined,
      locks_s: undefined,
    };
  }
  const grip = planned.role === "tack";
  const own_s = least_s * Math.max(1, planned.flashFactor);
  const model = flowsAsClear(sheet) ? modelWait({ conditions, build, next, shop, own_s, most_s, grip }) : null;
  const runs_s = model?.runsBefore_s;
  const { noStrings_s = 0, lost_s: locks_s } = model?.grip ?? {};
  const from_s = Math.max(own_s, model?.likelyThen ? (runs_s ?? 0) : 0, noStrings_s);
  const by = from_s === own_s ? (own_s > least_s ? "way" : "sheet") : from_s === runs_s ? "run" : "grip";
  const setsFirst = grip && locks_s !== undefined && locks_s <= from_s;
  const scuff_s = Math.max(aged(SCUFF_AFTER_S), most_s, from_s);
  const gripEnds_s = grip && locks_s !== undefined && !setsFirst ? locks_s : null;
  return {
    ...common,
    sand: false,
    least_s: from_s,
    by,
    best_s: gripEnds_s ?? Math.max(from_s, most_s),
    latest_s: gripEnds_s ?? scuff_s,
    late: gripEnds_s === null ? "scuff" : "grip",
    runsBefore_s: runs_s,
    locks_s,
    setsFirst,
  };
}

interface ModelAsked extends Pick<WaitInput, "build" | "conditions" | "next" | "shop"> {
  own_s: number;
  most_s: number;
  grip: boolean;
}

/**
 * What the flow model says of the wait; null where it does not reach. Clock, row, course and plan of a panel ask the same, and whatever is written on it
 * that is no coat and no climate leaves it as it was: it is remembered.
 */
const modelWait = remember(400, ({ conditions, build, next, shop, own_s, most_s, grip }: ModelAsked) =>
  inRange(() => {
    const laid = build.length > 1 ? layCoats(conditions, build.slice(0, -1), options(shop)) : undefined;
    const own = { ...options(shop), ...(laid ? { laid } : {}) };
    /** The build with so long a wait after its last coat. */
    const after = (flash_s: number): FlowCoat[] => [...build.slice(0, -1), { ...build.at(-1)!, flash_s }];
    /** Chance that the next coat itself runs at an edge, its film not known. */
    const chance = (flash_s: number) =>
      runChance(sagAtEdge(layCoats(conditions, [...after(flash_s), { ...next, flash_s: 0 }], own).out.at(-1)!.sagLocal_m));
    const waited = chance(most_s);
    const enough = Math.max(CHANCE_WORDS.may, waited + HELPS);
    return {
      runsBefore_s: waited >= CHANCE_WORDS.likely ? null : endOf((flash_s) => chance(flash_s) >= enough, most_s),
      likelyThen: chance(own_s) >= CHANCE_WORDS.likely,
      grip: grip ? gripTimes(layCoats(conditions, after(0), own).out.at(-1)!.film, conditions) : undefined,
    };
  }),
);

/** From when on something no longer holds, which holds the less the longer one waits; 0: it never did, null: it still does then. */
function endOf(holds: (at_s: number) => boolean, most_s: number): number | null {
  if (!holds(0)) return 0;
  return holds(most_s) ? null : halve(0, most_s, holds);
}

const options = (shop: ShopFactors | undefined) => (shop ? { shop } : {});

/** Where a yes turns into a no, between a yes and a no. */
function halve(yes_s: number, no_s: number, is: (at_s: number) => boolean): number {
  let [low, high] = [yes_s, no_s];
  for (let i = 0; i < SEARCH_STEPS && high - low > CLOSE_S; i++) {
    const middle = (low + high) / 2;
    if (is(middle)) low = middle;
    else high = middle;
  }
  return high;
}
