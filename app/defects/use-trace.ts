import { useState } from "react";
import type { Point } from "#core/panel/geometry";
import { boundingBox, lineLength, polygonArea } from "#core/panel/geometry";

export type DrawnAs = "point" | "points" | "line" | "area";
export interface Drawn {
  as: DrawnAs;
  points: readonly Point[];
}

/** Middle of a drawing: of a line half way along its points, else the mean of them. */
export function middleOf({ as, points }: Drawn): Point | null {
  if (points.length === 0) return null;
  if (as === "line") return points[Math.floor((points.length - 1) / 2)]!;
  const sum = points.reduce<Point>(([a, b], [x, y]) => [a + x, b + y], [0, 0]);
  return [sum[0] / points.length, sum[1] / points.length];
}

/** Length and width that a drawing shows by itself: a line's own length, an area's reach; null for points. */
export function sizeOf({ as, points }: Drawn): { length_m: number; width_m: number | null; area_m2: number | null } | null {
  if (as === "line" && points.length > 1) return { length_m: lineLength(points), width_m: null, area_m2: null };
  if (as !== "area" || points.length < 3) return null;
  const { x0, y0, x1, y1 } = boundingBox(points);
  return { length_m: Math.max(x1 - x0, y1 - y0), width_m: Math.min(x1 - x0, y1 - y0), area_m2: polygonArea(points) };
}

/** The form's text of a drawing: nothing for one place. */
export const traceText = ({ as, points }: Drawn): string =>
  as === "point" || points.length === 0 ? "" : JSON.stringify({ as, at: points.map(([x_m, y_m]) => ({ x_m, y_m })) });

/** What is being drawn on the panel: places added one by one, the last one taken back. */
export function useTrace(start: DrawnAs) {
  const [drawn, setDrawn] = useState<Drawn>({ as: start, points: [] });
  return {
    drawn,
    add: (at: Point): Drawn => {
      const next = { ...drawn, points: drawn.as === "point" ? [at] : [...drawn.points, at] };
      setDrawn(next);
      return next;
    },
    takeBack: (): Drawn => {
      const next = { ...drawn, points: drawn.points.slice(0, -1) };
      setDrawn(next);
      return next;
    },
    drawAs: (as: DrawnAs) => setDrawn({ as, points: [] }),
  };
}
