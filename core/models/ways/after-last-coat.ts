import { PURGE_S, cureEnergyOf } from "../cure/bake-plan";
import { cureRate } from "../cure/cure-age";
import type { ProductSheet } from "../product/sheet";
import { SHEET_K } from "../product/sheet-air";
import type { HouseWay } from "./way";
import type { Finish } from "./terms";

/** A matte part flashes so long after its last coat before any heat: common practice, 15 min. */
const MATTE_FINAL_FLASH_S = 15 * 60;

/** Air after the last coat before heat goes on: as the way has it, else as the finish wants it. */
export const airBeforeHeat_s = ({ way, finish }: { way?: Pick<HouseWay, "airBeforeHeat_s"> | undefined; finish: Finish }): number =>
  way?.airBeforeHeat_s ?? (finish === "matte" ? MATTE_FINAL_FLASH_S : PURGE_S);

/** What its sheet says of 20 °C, in air that stays as warm as this. */
const aged_s = (sheet: ProductSheet, at20_s: number, air_K: number): number =>
  at20_s / cureRate(air_K, { reference_K: SHEET_K, energy_J_mol: cureEnergyOf(sheet) });

/** Until a part may be turned where its sheet has neither a tape nor a dust-free time: an hour at 20 °C, common practice; matte, which keeps every touch, until it is hard. */
const TURN_S = 3600;
/** Until a part may be turned, in air that stays so. @throws RangeError */
export const turnAfter_s = (sheet: ProductSheet, air_K: number): number =>
  aged_s(sheet, sheet.tape_s ?? sheet.dustFree_s ?? (sheet.kind === "matte clear" ? sheet.sandAfter_s : TURN_S), air_K);

/** Until it bears what comes next, in air that stays so: gloss the paper, and never before the way wants it; matte, which nobody sands, a hand. @throws RangeError */
export const bearsAfter_s = (
  sheet: ProductSheet,
  { way, finish, air_K }: { way: Pick<HouseWay, "correctAfter_s">; finish: Finish; air_K: number },
): number =>
  finish === "matte"
    ? aged_s(sheet, sheet.tape_s ?? sheet.dustFree_s ?? sheet.sandAfter_s, air_K)
    : Math.max(aged_s(sheet, sheet.sandAfter_s, air_K), way.correctAfter_s);
