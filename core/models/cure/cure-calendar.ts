import type { ProductSheet } from "../product/sheet";
import { SHEET_K } from "../product/sheet";
import { type CureStage, cureFromLog } from "./bake-plan";
import type { PartSample } from "./cure-age";

const DAY_S = 86_400;
/** Where the sheet does not say: no wax for 60 to 90 days. Common practice. */
export const USUAL_WAX_S = { from: 60 * DAY_S, to: 90 * DAY_S } as const;

export interface CureDate {
  stage: CureStage;
  /** After the last coat. */
  after_s: number;
  /** By the product's sheet, by the part's own temperature, or common practice. */
  from: "sheet" | "part's log" | "common practice";
}

/** When a panel's clear may be taped, sanded, polished and waxed, after its last coat: by its own log where there is one, else at 20 °C. */
export function cureCalendar(sheet: ProductSheet, log: readonly PartSample[] | null): CureDate[] {
  const still: PartSample[] = [
    { at_s: 0, part_K: SHEET_K },
    { at_s: 1, part_K: SHEET_K },
  ];
  const dates = cureFromLog(sheet, log && log.length >= 2 ? log : still).stages.flatMap(({ stage, at_s }): CureDate[] =>
    at_s === null ? [] : [{ stage, after_s: at_s, from: log && stage !== "wax" ? "part's log" : "sheet" }],
  );
  return dates.some((d) => d.stage === "wax") ? dates : [...dates, { stage: "wax", after_s: USUAL_WAX_S.from, from: "common practice" }];
}
