import type { ShapeKind } from "../kernel/geometry/shapes";

/** How a part is usually sprayed: as it stands on the vehicle, small parts laid. Common practice. */
export const USUALLY_HANGS: Record<ShapeKind, "vertical" | "horizontal"> = {
  bonnet: "horizontal",
  door: "vertical",
  wing: "vertical",
  quarter: "vertical",
  roof: "horizontal",
  bootLid: "horizontal",
  bumper: "vertical",
  tank: "horizontal",
  mirrorCap: "horizontal",
  jamb: "vertical",
};

/** Names of parts, each its own: the second door is "Door 2". */
export function numbered(names: readonly string[]): string[] {
  return names.map((name, i) => {
    const before = names.slice(0, i).filter((n) => n === name).length;
    return before === 0 ? name : `${name} ${before + 1}`;
  });
}
