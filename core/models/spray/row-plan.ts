import { type Polygon, boundingBox, requirePolygon } from "../../kernel/geometry/geometry";
import { requireInteger } from "../../kernel/guard";
import { GUN_BOUNDS, ROW_BOUNDS, requireWithin } from "../bounds";
import { type Pass, USUAL_STROKES, reachesWithin } from "./strokes";

/** How the rows of a part lie, whatever gun goes along them. */
export interface RowPlan {
  /** Rows up and down, the fan lying; else across, the fan upright. */
  turned: boolean;
  /** Of the first row within the edge that it starts from; negative: beyond it. */
  first_m: number;
  /** Gaps drawn together so that the last row lies as far from its edge as the first from its own; else the last is wherever the gaps end. */
  even: boolean;
  /** The gun runs so far past the edge at either end of a row. */
  overrun_m: number;
  /** Every other coat's rows lie between those of the coat before. */
  staggered: boolean;
  /** Before its rows a coat goes along both ends of the part, where the rows turn. */
  endsFirst: boolean;
}

/** Rows that nobody has planned: across, the first one on the upper edge. Common practice. */
export const USUAL_ROWS: RowPlan = {
  turned: false,
  first_m: 0,
  even: false,
  overrun_m: USUAL_STROKES.overrun_m,
  staggered: false,
  endsFirst: false,
};

/** A part with its rows lying: of rows up and down its places the other way round. */
export const lyingOf = (outline: Polygon, turned: boolean): Polygon => (turned ? outline.map(([x, y]) => [y, x] as const) : outline);

const EPS = 1e-9;

/**
 * One coat as passes over a part, in the order of the hand: each row back from where the last ended. A row is as long as the part is wide within the
 * fan; over a wheel arch it is two. @param number of the coat on its face, from 1 @throws RangeError
 */
export function rowsOver(
  outline: Polygon,
  { fan_m, overlap }: { fan_m: number; overlap: number },
  plan: RowPlan = USUAL_ROWS,
  number = 1,
): Pass[] {
  requirePolygon("outline", outline);
  const fan = requireWithin(GUN_BOUNDS, "fan_m", fan_m);
  const gap_m = fan * (1 - requireWithin(GUN_BOUNDS, "overlap", overlap));
  const first_m = requireWithin(ROW_BOUNDS, "first_m", plan.first_m);
  const overrun_m = requireWithin(ROW_BOUNDS, "overrun_m", plan.overrun_m);
  const between = plan.staggered && requireInteger("number", number, { min: 1, max: 1000 }) % 2 === 0;
  const lying = lyingOf(outline, plan.turned);
  const { y0, y1 } = boundingBox(lying);
  const places = plan.even
    ? evenPlaces(y0, y1, { first_m, gap_m, between })
    : placesFrom(y0 + first_m + (between ? gap_m / 2 : 0), y1, gap_m);
  const passes: Pass[] = plan.endsFirst ? endsOf(outline, fan, plan) : [];
  let back = false;
  for (const y_m of places) {
    const reaches = reachesWithin(lying, Math.max(y0, y_m - fan / 2), Math.min(y1, y_m + fan / 2), 2 * overrun_m);
    const there = reaches.map(([from, to]): Pass => ({ x0_m: from - overrun_m, x1_m: to + overrun_m, y_m, turned: plan.turned }));
    passes.push(...(back ? there.reverse().map((p) => ({ ...p, x0_m: p.x1_m, x1_m: p.x0_m })) : there));
    if (there.length > 0) back = !back; // a row that misses the part is none
  }
  return passes;
}

/** Rows a gap apart, as far as the part goes. */
function placesFrom(from_m: number, to_m: number, gap_m: number): number[] {
  const places: number[] = [];
  for (let y_m = from_m; y_m <= to_m + EPS; y_m += gap_m) places.push(y_m);
  return places;
}

/** Rows as far from both edges, no farther apart than a gap; between those of the coat before there is one fewer. A part too low for two has one in its middle. */
function evenPlaces(y0: number, y1: number, { first_m, gap_m, between }: { first_m: number; gap_m: number; between: boolean }): number[] {
  const height_m = y1 - y0 - 2 * first_m;
  if (height_m < EPS) return [(y0 + y1) / 2];
  const gaps = Math.max(1, Math.ceil(height_m / gap_m - 1e-6));
  const apart_m = height_m / gaps;
  return between
    ? Array.from({ length: gaps }, (_, k) => y0 + first_m + (k + 0.5) * apart_m)
    : Array.from({ length: gaps + 1 }, (_, k) => y0 + first_m + k * apart_m);
}

/** A row along each end of the part where the rows turn: the other way round than they. */
function endsOf(outline: Polygon, fan: number, { turned, overrun_m }: RowPlan): Pass[] {
  const across = lyingOf(outline, !turned);
  const { y0, y1 } = boundingBox(across);
  return [y0, y1].flatMap((y_m) =>
    reachesWithin(across, Math.max(y0, y_m - fan / 2), Math.min(y1, y_m + fan / 2), Infinity).map(([from, to]): Pass => ({
      x0_m: from - overrun_m,
      x1_m: to + overrun_m,
      y_m,
      turned: !turned,
    })),
  );
}
