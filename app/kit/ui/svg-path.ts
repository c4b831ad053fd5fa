import type { Point } from "#core/kernel/geometry/geometry";

/** Drawings of a panel are in millimetres. */
export const MM = 1000;

/** Places on a panel, m, as an SVG path in millimetres; open. */
export const svgPath = (points: readonly Point[]): string =>
  points.map(([x, y], i) => `${i ? "L" : "M"}${(x * MM).toFixed(1)} ${(y * MM).toFixed(1)}`).join("");
