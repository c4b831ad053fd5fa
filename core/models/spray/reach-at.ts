import { type Polygon, boundingBox } from "../../kernel/geometry/geometry";
import { reachesWithin } from "./strokes";

/** Where a part begins and ends, from left to right, within the fan of a row at this height. @throws RangeError where the row misses it */
export function reachAt(outline: Polygon, y_m: number, fan_m: number): [number, number] {
  const { y0, y1 } = boundingBox(outline);
  const reaches = reachesWithin(outline, Math.max(y0, y_m - fan_m / 2), Math.min(y1, y_m + fan_m / 2), Infinity);
  if (reaches.length === 0) throw new RangeError(`a row at ${y_m} m must meet the part between ${y0} and ${y1} m`);
  return reaches[0]!;
}
