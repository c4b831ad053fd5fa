import { SHAPES, type ShapeKind } from "#core/kernel/geometry/shapes";
import type { Region } from "#server/repos/shop-repo";
import { REGIONS } from "./region";

/** What a usual part is called. */
export const partName = (kind: ShapeKind, region: Region): string => REGIONS[region].parts[kind] ?? SHAPES[kind].name;
