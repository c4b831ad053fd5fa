import type { Point } from "../panel/geometry";
import { tooFewReadings } from "./assess-panel";
import type { FieldUnknowns } from "./field-fit";
import { type FilmInput, filmGrid, filmState, mixedFilm, planReadings, possibleWorlds } from "./panel-film";

/** Film of a panel as a map: everything a page draws without working anything out again. */
export interface PanelMap {
  nx: number;
  ny: number;
  box: { x0: number; y0: number; x1: number; y1: number };
  /** Cells inside the outline: their index in the nx × ny box, row by row, and at each of them clear, its doubt and the paper's bite. */
  index: Int32Array;
  mean_m: Float64Array;
  sd_m: Float64Array;
  multiplier: Float64Array;
  /** 1 where the cell is judged, 0 on the taped rim. */
  judged: Uint8Array;
  inferred: boolean;
  /** What the readings themselves said of the panel: length and spreads, of the likeliest history. */
  unknowns: FieldUnknowns;
  /** Removal each draw would allow, ascending: the chance of a removal is the share of draws that allow less. */
  allowedThin_m: Float64Array;
  allowedCut_m: Float64Array;
  largestSafeRemoval_m: number;
  thinnest: { at: Point; clear_m: number; u_m: number };
  meanClear_m: number;
  u_meanClear_m: number;
  /** Where one more reading tells most. */
  next: Point | null;
}

/**
 * The map of a panel's clear from its readings, with the draws that a slider needs.
 * @returns the map, or why there is none @throws RangeError for readings or outlines outside the models
 */
export function mapPanel(
  input: FilmInput,
  { onProgress }: { onProgress?: (share: number) => void } = {},
): { map: PanelMap; reason: null } | { map: null; reason: string } {
  const reason = tooFewReadings(input.observations);
  if (reason) return { map: null, reason };
  const worlds = possibleWorlds(input);
  onProgress?.(0.3);
  const grid = filmGrid(input);
  const state = filmState(input, input.observations, { worlds, grid });
  onProgress?.(0.8);
  const { length_m, sdClear_m, sdUnder_m, micro_m } = state.parts[state.mainWorld]!.field.prior;
  const judged = new Uint8Array(grid.points.length);
  for (const i of grid.judged) judged[i] = 1;
  const [next] = planReadings(input, worlds[state.mainWorld]!.prior, 1);
  return {
    reason: null,
    map: {
      nx: grid.nx,
      ny: grid.ny,
      box: grid.box,
      index: grid.index,
      ...mixedFilm(state),
      multiplier: grid.multiplier,
      judged,
      inferred: input.observations.every((o) => o.layer === "after"),
      unknowns: { length_m, sdClear_m, sdUnder_m, micro_m },
      allowedThin_m: state.allowedThin_m,
      allowedCut_m: state.allowedCut_m,
      largestSafeRemoval_m: state.largestSafeRemoval_m,
      thinnest: state.thinnest,
      meanClear_m: state.meanClear_m,
      u_meanClear_m: state.u_meanClear_m,
      next: next?.at ?? null,
    },
  };
}

/** Share of draws that allow less than a removal: the chance that it goes wrong. @param sorted ascending */
export function chanceAt(sorted: Float64Array, removal_m: number): number {
  let low = 0;
  let high = sorted.length;
  while (low < high) {
    const mid = (low + high) >> 1;
    if (sorted[mid]! < removal_m) low = mid + 1;
    else high = mid;
  }
  return sorted.length ? low / sorted.length : NaN;
}
