import { useMemo } from "react";
import type { Point } from "#core/kernel/geometry/geometry";
import { boundingBox, lineLength, polygonArea } from "#core/kernel/geometry/geometry";

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

/** A drawing as it is kept while it is not stored: how it is drawn, and where. */
const drawnText = (drawn: Drawn): string => (drawn.as === "point" && drawn.points.length === 0 ? "" : JSON.stringify(drawn));

function readDrawn(text: string): Drawn {
  try {
    const found = JSON.parse(text) as Partial<Drawn>;
    if (found.as && Array.isArray(found.points)) return { as: found.as, points: found.points };
  } catch {
    // nothing drawn yet
  }
  return { as: "point", points: [] };
}

/** What is being drawn on the panel, held as a text of the form's draft: places added one by one, the last one taken back. */
export function useTrace(text: string, keep: (text: string) => void) {
  const drawn = useMemo(() => readDrawn(text), [text]);
  const become = (next: Drawn): Drawn => {
    keep(drawnText(next));
    return next;
  };
  return {
    drawn,
    add: (at: Point): Drawn => become({ ...drawn, points: drawn.as === "point" ? [at] : [...drawn.points, at] }),
    takeBack: (): Drawn => become({ ...drawn, points: drawn.points.slice(0, -1) }),
    drawAs: (as: DrawnAs): Drawn => become({ as, points: [] }),
  };
}
