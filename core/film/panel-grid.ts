import { requireNumber } from "../guard";
import { type Point, type Polygon, boundingBox, edgeDistances, gridInside, lineDistances, requirePolygon } from "../panel/geometry";
import { edgeMultiplier } from "./cell-risk";

/** The cells of a panel, worked out once: places, how hard paper bites there, and which of them are judged. */
export interface PanelGrid {
  nx: number;
  ny: number;
  box: { x0: number; y0: number; x1: number; y1: number };
  /** Cells inside the outline, row by row, and the index of each in the nx × ny box. */
  points: readonly Point[];
  index: Int32Array;
  /** Distance of each to the panel's edge and to the nearest body line (Infinity without any). */
  edge_m: Float64Array;
  line_m: Float64Array;
  multiplier: Float64Array;
  /** Cells (indices into `points`) outside the taped rim. */
  judged: Int32Array;
  /** Judged cells of every second row and column: they carry the draws. */
  coarse: Int32Array;
}

/** A strip worked apart from the flat: how wide, and what comes off there as a share of the flat; 0: taped off, not judged. */
export interface StripWork {
  within_m: number;
  share: number;
}
/** Strips along the rim and on either side of the body lines. */
export interface StripsByHand {
  edge?: StripWork | undefined;
  line?: StripWork | undefined;
}

/** @throws RangeError for a bad outline or strip, or when the tape leaves nothing to judge */
export function panelGrid(
  outline: Polygon,
  tape_m: number,
  {
    nx = 60,
    ny = 50,
    bodyLines = [],
    byHand = {},
  }: { nx?: number; ny?: number; bodyLines?: readonly (readonly Point[])[]; byHand?: StripsByHand } = {},
): PanelGrid {
  requirePolygon("outline", outline);
  requireNumber("tape_m", tape_m, { min: 0 });
  const cells = gridInside(outline, { nx, ny });
  const points = cells.map((c) => c.point);
  const edge_m = edgeDistances(points, outline);
  const line_m = lineDistances(points, bodyLines);
  const share = stripShares(edge_m, line_m, byHand);
  const judged = Int32Array.from(points.keys()).filter((i) => edge_m[i]! >= tape_m && share[i]! > 0);
  if (judged.length === 0) throw new RangeError(`tape_m must leave some panel to judge, got ${tape_m}`);
  const coarse = judged.filter((i) => cells[i]!.column % 2 === 0 && cells[i]!.row % 2 === 0);
  return {
    nx,
    ny,
    box: boundingBox(outline),
    points,
    index: Int32Array.from(cells, (c) => c.row * nx + c.column),
    edge_m,
    line_m,
    multiplier: edge_m.map((d, i) => edgeMultiplier(d) * (share[i]! || 1)),
    judged,
    coarse: coarse.length ? coarse : judged,
  };
}

/** What comes off at each place as a share of the flat: the least of the strips it lies in. @throws RangeError */
export function stripShares(edge_m: Float64Array, line_m: Float64Array, { edge, line }: StripsByHand): Float64Array {
  const shares = new Float64Array(edge_m.length).fill(1);
  for (const [name, strip, distance_m] of [
    ["byHand.edge", edge, edge_m],
    ["byHand.line", line, line_m],
  ] as const) {
    if (!strip) continue;
    requireNumber(`${name}.within_m`, strip.within_m, { min: 0, max: 1 });
    requireNumber(`${name}.share`, strip.share, { min: 0, max: 2 });
    for (let i = 0; i < shares.length; i++) if (distance_m[i]! < strip.within_m) shares[i] = Math.min(shares[i]!, strip.share);
  }
  return shares;
}
