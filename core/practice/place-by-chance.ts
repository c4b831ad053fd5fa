import { type Polygon, boundingBox, isInside } from "../kernel/geometry/geometry";
import type { PlaceOnPanel } from "../models/panel-film/over-part";

/** Anywhere on a part, every place as likely. */
export function placeByChance(outline: Polygon, random: () => number): PlaceOnPanel {
  const { x0, y0, x1, y1 } = boundingBox(outline);
  for (;;) {
    const [x_m, y_m] = [x0 + (x1 - x0) * random(), y0 + (y1 - y0) * random()];
    if (isInside([x_m, y_m], outline)) return { x_m, y_m };
  }
}
