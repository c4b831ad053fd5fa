import type { Point } from "#core/kernel/geometry/geometry";
import { parseQuantity } from "#core/kernel/units/parse";
import type { UnitPreferences } from "#core/kernel/units/quantities";

/** Corners typed one a line as "x y" in the screen's unit of length. */
export function parseCorners(text: string, units: UnitPreferences): { ok: true; corners: Point[] } | { ok: false; message: string } {
  const corners: Point[] = [];
  for (const [i, line] of text.split("\n").entries()) {
    if (line.trim() === "") continue;
    const parts = line.trim().split(/[\s;]+/);
    const [x, y] = parts.map((p) => parseQuantity("length", p, units.length));
    if (parts.length !== 2 || !x?.ok || !y?.ok)
      return { ok: false, message: `Line ${i + 1}: wanted x and y in ${units.length}, got "${line.trim()}"` };
    corners.push([x.si, y.si]);
  }
  return { ok: true, corners };
}
