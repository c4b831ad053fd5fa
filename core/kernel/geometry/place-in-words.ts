import { type Point, boundingBox } from "./geometry";
import type { PanelShape } from "./shapes";

/** A place in words: "front edge, left" or "middle". */
export function placeInWords([x, y]: Point, shape: Pick<PanelShape, "outline" | "sides">): string {
  const { x0, y0, x1, y1 } = boundingBox(shape.outline);
  const u = (x - x0) / (x1 - x0);
  const v = (y - y0) / (y1 - y0);
  const [top, right, bottom, left] = shape.sides;
  const nearest = [
    { d: v * (y1 - y0), name: top, other: u < 0.36 ? left : u > 0.64 ? right : null },
    { d: (1 - v) * (y1 - y0), name: bottom, other: u < 0.36 ? left : u > 0.64 ? right : null },
    { d: u * (x1 - x0), name: left, other: v < 0.36 ? top : v > 0.64 ? bottom : null },
    { d: (1 - u) * (x1 - x0), name: right, other: v < 0.36 ? top : v > 0.64 ? bottom : null },
  ].sort((a, b) => a.d - b.d)[0]!;
  if (nearest.d > 0.3 * Math.min(x1 - x0, y1 - y0)) return "middle";
  return nearest.other ? `${nearest.name}, ${nearest.other.replace(" edge", "")} end` : nearest.name;
}
