import { requireNumber } from "../kernel/guard";
import {
  type Point,
  type Polygon,
  boundingBox,
  edgeDistances,
  gridInside,
  lineDistances,
  requirePolygon,
} from "../kernel/geometry/geometry";
import { type Region, inRegion } from "../kernel/geometry/region";
import { edgeMultiplier } from "./cell-risk";
import { LEAST_RIM_M } from "./limits";

/** Places of a panel with their distance to its edge and to the nearest body line (Infinity without any). */
export interface Cells {
  points: readonly Point[];
  edge_m: Float64Array;
  line_m: Float64Array;
}

/** The picture of a panel's film: every cell of the fine grid inside the outline, worked out once. */
export interface PictureCells extends Cells {
  nx: number;
  ny: number;
  box: { x0: number; y0: number; x1: number; y1: number };
  bodyLines: readonly (readonly Point[])[];
  /** Index of each in the nx × ny box, row by row. */
  index: Int32Array;
}

/** A strip worked apart from the flat: how wide, and what comes off there as a share of the flat; 0: taped off, not worked. */
export interface StripWork {
  within_m: number;
  share: number;
}
/** Strips along the rim and on either side of the body lines. */
export interface StripsByHand {
  edge?: StripWork | undefined;
  line?: StripWork | undefined;
}

/** Film falls off within three lengths of an edge and four of a line: there the judge looks at every cell, elsewhere at every second row and column. */
const FINE_M = { edge: 0.09, line: 0.04 } as const;
const FINE = { nx: 60, ny: 50 } as const;

/** An outline does not change: its cells and their distances are worked out once. */
const known = new WeakMap<Polygon, PictureCells>();

/** All cells of the fine grid. @throws RangeError for a bad outline */
export function pictureCells(outline: Polygon, bodyLines: readonly (readonly Point[])[] = []): PictureCells {
  const before = known.get(outline);
  if (before?.bodyLines === bodyLines) return before;
  const cells = cellsOf(outline, bodyLines);
  known.set(outline, cells);
  return cells;
}

function cellsOf(outline: Polygon, bodyLines: readonly (readonly Point[])[]): PictureCells {
  requirePolygon("outline", outline);
  const { nx, ny } = FINE;
  const cells = gridInside(outline, { nx, ny });
  if (cells.length === 0) throw new RangeError("outline must enclose some panel");
  const points = cells.map((c) => c.point);
  return {
    nx,
    ny,
    box: boundingBox(outline),
    points,
    bodyLines,
    index: Int32Array.from(cells, (c) => c.row * nx + c.column),
    edge_m: edgeDistances(points, outline),
    line_m: lineDistances(points, bodyLines),
  };
}

/**
 * The cells the draws are made on: those of the picture where film falls off, and of the others every second row and column, each standing for
 * its share of the panel.
 * @returns their indices in the picture, and the count of the picture's cells that each stands for
 */
export function judgeCells(picture: PictureCells): { at: Int32Array; weight: Float64Array } {
  const all = [...picture.points.keys()];
  const fine = (i: number) => picture.edge_m[i]! < FINE_M.edge || picture.line_m[i]! < FINE_M.line;
  const even = (i: number) => (picture.index[i]! % picture.nx) % 2 === 0 && Math.floor(picture.index[i]! / picture.nx) % 2 === 0;
  const inner = all.filter((i) => !fine(i));
  const kept = inner.filter(even);
  if (kept.length === 0) return { at: Int32Array.from(all), weight: new Float64Array(all.length).fill(1) };
  const at = all.filter((i) => fine(i) || even(i));
  // None of the panel's area is lost to the thinning out.
  return { at: Int32Array.from(at), weight: Float64Array.from(at, (i) => (fine(i) ? 1 : inner.length / kept.length)) };
}

/** What comes off at each place as a share of the flat: the least of the strips it lies in. @throws RangeError */
export function stripShares({ edge_m, line_m }: Pick<Cells, "edge_m" | "line_m">, { edge, line }: StripsByHand): Float64Array {
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

/** Where a panel is worked: the rim left out, strips worked apart, and the part of it that is worked at all. */
export interface WorkedPlace {
  rim_m: number;
  byHand?: StripsByHand | undefined;
  /** Null or left away: the whole panel. */
  region?: Region | null | undefined;
}

/** How much of the flat's removal comes to each cell, edges bitten harder; 0 on the rim, strips and parts that are not worked. @throws RangeError */
export function workedShare(cells: Cells, { rim_m, byHand = {}, region = null }: WorkedPlace): Float64Array {
  requireNumber("rim_m", rim_m, { min: 0 });
  const shares = stripShares(cells, byHand);
  const open = (i: number) => cells.edge_m[i]! >= rim_m && inRegion(cells.points[i]!, region);
  const bitten = shares.map((s, i) => (open(i) ? s * edgeMultiplier(cells.edge_m[i]!) : 0));
  if (!bitten.some((s) => s > 0)) throw new RangeError(`rim_m must leave some panel to judge, got ${rim_m}`);
  return bitten;
}

/** Places where a probe may be put: not nearer to the edge than it sits flat. */
export const readable = (cells: Cells, rim_m: number): number[] =>
  [...cells.points.keys()].filter((i) => cells.edge_m[i]! >= Math.max(rim_m, LEAST_RIM_M));
