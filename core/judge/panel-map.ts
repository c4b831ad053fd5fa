import type { Point } from "../kernel/geometry/geometry";
import type { FieldUnknowns } from "../models/film/field-fit";
import { type FilmFacts, type StackHypothesis, tooFewReadings } from "./film-facts";
import type { ClearThere, Thinnest } from "./film-judge";
import { type JudgeOf, freshJudge } from "./kept-judge";
import { type WorkedPlace, workedShare } from "./judge-cells";
import { planReadings } from "./next-reading";

/** Film of a panel as a map: everything a page draws without working anything out again. */
export interface PanelMap {
  nx: number;
  ny: number;
  box: { x0: number; y0: number; x1: number; y1: number };
  /** Cells inside the outline: their index in the nx × ny box, row by row, and at each of them clear, its doubt and what share of a removal comes to it. */
  index: Int32Array;
  mean_m: Float64Array;
  sd_m: Float64Array;
  /** 0 on the rim and strips that are not worked. */
  share: Float64Array;
  inferred: boolean;
  /** What the readings themselves said of the panel: length and spreads, of the likeliest history. */
  unknowns: FieldUnknowns;
  /** Removal each draw would allow, ascending: the chance of a removal is the share of draws that allow less. */
  cut_m: Float64Array;
  thin_m: Float64Array;
  /** Relative doubt of a removal that these hold for. */
  uRel: number;
  safe_m: number;
  thinnest: Thinnest;
  mean: ClearThere;
  /** Where one more reading tells most. */
  next: Point | null;
}

export interface MapInput extends WorkedPlace {
  film: FilmFacts;
  hypotheses?: readonly StackHypothesis[] | undefined;
  /** The removal that the next reading is looked for, and its relative doubt. */
  removal_m: number;
  uRel: number;
  floor_m: number;
  draws?: number;
}

/**
 * The map of a panel's clear from its readings, with the draws that a slider needs.
 * @returns the map, or why there is none @throws RangeError for readings or outlines outside the models
 */
export function mapPanel(
  { film, hypotheses, removal_m, uRel, rim_m, byHand, region, floor_m, draws }: MapInput,
  { onProgress, judgeOf = freshJudge }: { onProgress?: (share: number) => void; judgeOf?: JudgeOf } = {},
): { map: PanelMap; reason: null } | { map: null; reason: string } {
  const reason = tooFewReadings(film.observations);
  if (reason) return { map: null, reason };
  const judge = judgeOf(film, { hypotheses, draws });
  onProgress?.(0.3);
  const place: WorkedPlace = { rim_m, byHand, region };
  const { cut_m, thin_m, safe_m } = judge.allowance({ ...place, uRel, floor_m });
  onProgress?.(0.8);
  const { nx, ny, box, index } = judge.picture();
  const { length_m, sdClear_m, sdUnder_m, micro_m } = judge.prior();
  const panel = { removal_m, u_m: uRel * removal_m, ...place };
  const [next] = planReadings(judge, { panel, local: [], floor_m }, 1);
  return {
    reason: null,
    map: {
      nx,
      ny,
      box,
      index,
      ...judge.clear(),
      share: workedShare(judge.picture(), place),
      inferred: judge.inferred,
      unknowns: { length_m, sdClear_m, sdUnder_m, micro_m },
      cut_m,
      thin_m,
      uRel,
      safe_m,
      thinnest: judge.thinnest(),
      mean: judge.mean(),
      next: next?.at ?? null,
    },
  };
}
