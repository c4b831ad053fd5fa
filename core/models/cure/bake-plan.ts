import { requireNumber } from "../../kernel/guard";
import type { ProductSheet } from "../product/sheet";
import { SHEET_K } from "../product/sheet-air";
import {
  CURE_BEYOND_K,
  ENERGY_LIMITS_J_MOL,
  PART_LAG_S,
  type PartSample,
  cureEnergy,
  cureRate,
  equivalentAge,
  partTemperature,
} from "./cure-age";

/** End points of cure in the painter's words. */
export const CURE_STAGES = { dustFree: "out of dust", tape: "tape", sand: "sand", polish: "polish", wax: "wax" } as const;
export type CureStage = keyof typeof CURE_STAGES;
const STAGES = Object.keys(CURE_STAGES) as CureStage[];

export interface BakePlan {
  /** Booth goes on unheated so long before heat: solvent leaves first. */
  purge_s: number;
  /** Air heats up over this time, then holds. */
  ramp_s: number;
  hold_s: number;
  air_K: number;
  room_K: number;
}
/** Common practice: 15 to 20 min of booth air before heat. */
export const PURGE_S = 17.5 * 60;
const STEP_S = 30;
const MOST_S = 120 * 86400;
const COOL_S = 2 * 3600;

/** Air of a booth at a time after the last coat. */
export function boothAir(plan: BakePlan, at_s: number): number {
  const heated = at_s - plan.purge_s;
  if (heated <= 0 || plan.hold_s === 0) return plan.room_K;
  if (heated < plan.ramp_s) return plan.room_K + ((plan.air_K - plan.room_K) * heated) / plan.ramp_s;
  return heated < plan.ramp_s + plan.hold_s ? plan.air_K : plan.room_K;
}

/** The part's temperature through a bake, lagging the booth's air; up to two hours after it. @throws RangeError */
export function bakeLog(plan: BakePlan, lag_s: number): PartSample[] {
  const end = plan.hold_s === 0 ? STEP_S : plan.purge_s + plan.ramp_s + plan.hold_s + COOL_S;
  requireNumber("plan.hold_s", plan.hold_s, { min: 0, max: 86400 });
  const log: PartSample[] = [{ at_s: 0, part_K: plan.room_K }];
  while (log.at(-1)!.at_s < end) {
    const { at_s, part_K } = log.at(-1)!;
    const next = Math.min(end, at_s + STEP_S);
    log.push({ at_s: next, part_K: partTemperature({ air_K: boothAir(plan, next), start_K: part_K, time_s: next - at_s, lag_s }) });
  }
  return log;
}

export interface StageTime {
  stage: CureStage;
  /** After the last coat: expected, and the range that part lag and the sheet's own spread give. Null: the sheet does not say. */
  at_s: number | null;
  early_s: number | null;
  late_s: number | null;
}
export interface CureForecast {
  energy_J_mol: number | null;
  stages: StageTime[];
  warnings: string[];
}

/** The hottest part that a sheet says anything of: 10 K above its bake, or above 20 °C where it gives none. */
export const hottestCounted_K = ({ bake }: Pick<ProductSheet, "bake">): number => (bake?.part_K ?? SHEET_K) + CURE_BEYOND_K;

/** A sheet's times are kept to about this: default of ours. */
const SHEET_SPREAD = 0.15;

/**
 * When a clear may be taped, sanded, polished and waxed, on a bake plan or in the air: equivalent age at 20 °C against the product's own points.
 * The energy comes from the product's bake and its 20 °C sanding time; without a bake the times hold at 20 °C only, within 10 K, with the
 * usual factor of 2.3 for 10 K.
 * @throws RangeError, also for heat more than 10 K above what the sheet speaks of: it is not computed
 */
export function cureForecast(sheet: ProductSheet, plan: BakePlan): CureForecast {
  const warnings: string[] = [];
  const energy = cureEnergyOf(sheet);
  const fitted = sheet.bake ? energy : null;
  if (fitted === null)
    warnings.push("The sheet gives no bake: a usual activation energy of 60 kJ/mol is taken, away from 20 °C it is a guess");
  else if (fitted < ENERGY_LIMITS_J_MOL.low || fitted > ENERGY_LIMITS_J_MOL.high)
    warnings.push(`The sheet's two schedules give ${Math.round(fitted / 1000)} kJ/mol, outside 40 to 120: check what was typed`);
  if (plan.hold_s > 0) requireNumber("air_K", plan.air_K, { max: hottestTyped_K(sheet) });
  if (plan.room_K < SHEET_K - CURE_BEYOND_K) warnings.push("More than 10 K below 20 °C: cure may stop, see the sheet");
  if (plan.hold_s > 0 && plan.purge_s < 15 * 60) warnings.push("Heat before 15 min of booth air traps solvent: die-back and pops");
  const points: Record<CureStage, number | null> = {
    dustFree: sheet.dustFree_s,
    tape: sheet.tape_s,
    sand: sheet.sandAfter_s,
    polish: sheet.polish_s,
    wax: sheet.wax_s,
  };
  const reach = (age_s: number, lag_s: number) => timeToAge(plan, age_s, energy, lag_s);
  return {
    energy_J_mol: fitted,
    stages: STAGES.map((stage) => {
      const age = points[stage];
      if (age === null) return { stage, at_s: null, early_s: null, late_s: null };
      // Wax waits for solvent to leave, not for cure: heat does not shorten it here.
      if (stage === "wax") return { stage, at_s: age, early_s: age, late_s: age * (1 + SHEET_SPREAD) };
      return {
        stage,
        at_s: reach(age, PART_LAG_S.usual),
        early_s: reach(age * (1 - SHEET_SPREAD), PART_LAG_S.low),
        late_s: reach(age * (1 + SHEET_SPREAD), PART_LAG_S.high),
      };
    }),
    warnings,
  };
}

/** A limit shown in whole degrees may be typed as it is shown. */
const ROUNDED_K = 0.6;
const hottestTyped_K = (sheet: Pick<ProductSheet, "bake">): number => hottestCounted_K(sheet) + ROUNDED_K;

/** Whether a part was hotter than the sheet says anything of: how far that cured it cannot be worked out. */
export const tooHot = (sheet: Pick<ProductSheet, "bake">, part_K: number): boolean => part_K > hottestTyped_K(sheet);

/** A usual energy for two-pack clears where the sheet gives one schedule only: common practice, factor 2.3 from 20 to 30 °C. */
export const USUAL_ENERGY_J_MOL = 60e3;

/** The product's own energy from its bake and its 20 °C sanding time; without a bake a usual one. @throws RangeError */
export const cureEnergyOf = ({ bake, sandAfter_s }: Pick<ProductSheet, "bake" | "sandAfter_s">): number =>
  bake ? cureEnergy({ part_K: SHEET_K, time_s: sandAfter_s }, { part_K: bake.part_K, time_s: bake.time_s }) : USUAL_ENERGY_J_MOL;

/** Time after the last coat at which an age at 20 °C is reached. */
export function timeToAge(plan: BakePlan, age_s: number, energy_J_mol: number, lag_s: number): number {
  requireNumber("age_s", age_s, { min: 0, max: MOST_S });
  const options = { reference_K: SHEET_K, energy_J_mol };
  const log = bakeLog(plan, lag_s);
  let age = 0;
  for (let i = 1; i < log.length; i++) {
    const more = equivalentAge([log[i - 1]!, log[i]!], options);
    if (age + more >= age_s) return log[i - 1]!.at_s + ((age_s - age) / more) * (log[i]!.at_s - log[i - 1]!.at_s);
    age += more;
  }
  return log.at(-1)!.at_s + (age_s - age) / cureRate(plan.room_K, options);
}

export interface LoggedCure {
  /** Age at 20 °C that the log alone has brought. */
  age_s: number;
  /** Highest temperature of the part, and how long it was within 3 K of it. */
  top_K: number;
  atTop_s: number;
  /** When each stage was or will be reached after the last coat, the part staying as it is at the log's end. Null: the sheet does not say. */
  stages: { stage: CureStage; at_s: number | null; reached: boolean }[];
}
const NEAR_TOP_K = 3;

/**
 * Cure by what a probe on the part really saw: equivalent age over its log against the product's points; beyond its end at its last temperature.
 * Heat more than 10 K above what the sheet speaks of (its bake, else 20 °C) counts no more than that.
 * @param log after the last coat, times rising, at least two samples @throws RangeError
 */
export function cureFromLog(sheet: ProductSheet, log: readonly PartSample[]): LoggedCure {
  if (log.length < 2) throw new RangeError(`log must have at least 2 samples, got ${log.length}`);
  const energy_J_mol = cureEnergyOf(sheet);
  const options = { reference_K: SHEET_K, energy_J_mol };
  const most_K = hottestCounted_K(sheet);
  const counted = log.map((s) => ({ ...s, part_K: Math.min(s.part_K, most_K) }));
  const ages = [0];
  for (let i = 1; i < log.length; i++) ages.push(ages[i - 1]! + equivalentAge([counted[i - 1]!, counted[i]!], options));
  const age_s = ages.at(-1)!;
  const last = log.at(-1)!;
  const top_K = Math.max(...log.map((s) => s.part_K));
  const atTop_s = log.reduce((a, s, i) => (i > 0 && s.part_K >= top_K - NEAR_TOP_K ? a + s.at_s - log[i - 1]!.at_s : a), 0);
  const points: Record<CureStage, number | null> = {
    dustFree: sheet.dustFree_s,
    tape: sheet.tape_s,
    sand: sheet.sandAfter_s,
    polish: sheet.polish_s,
    wax: sheet.wax_s,
  };
  const stages = STAGES.map((stage) => {
    const wanted = points[stage];
    if (wanted === null) return { stage, at_s: null, reached: false };
    if (stage === "wax") return { stage, at_s: wanted, reached: last.at_s >= wanted };
    const i = ages.findIndex((a) => a >= wanted);
    if (i < 0) return { stage, at_s: last.at_s + (wanted - age_s) / cureRate(Math.min(last.part_K, most_K), options), reached: false };
    const share = (wanted - ages[i - 1]!) / (ages[i]! - ages[i - 1]!);
    return { stage, at_s: log[i - 1]!.at_s + share * (log[i]!.at_s - log[i - 1]!.at_s), reached: true };
  });
  return { age_s, top_K, atTop_s, stages };
}
