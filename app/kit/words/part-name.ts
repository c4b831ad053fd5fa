import { SHAPES, type ShapeKind } from "#core/kernel/geometry/shapes";
import { REGIONS, type Region } from "./region";

/** What a usual part is called. */
export const partName = (kind: ShapeKind, region: Region): string => REGIONS[region].parts[kind] ?? SHAPES[kind].name;
