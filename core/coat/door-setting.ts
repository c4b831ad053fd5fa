import { SHAPES, panelShape } from "../kernel/geometry/shapes";
import type { ProductSheet } from "../models/product/sheet";
import type { WaySetting } from "../models/ways/way-effect";
import { flowConditions } from "./setting";

/** Under what ways are compared: a usual door with one clear on one day. */
export interface DoorSetting {
  sheet: ProductSheet;
  air_K: number;
  lying: boolean;
}
const [width_m, height_m] = SHAPES.door.size_m;
const DOOR = panelShape("door", { width_m, height_m }).outline;

/** The same as the model of a way is asked. */
export const doorSetting = ({ sheet, air_K, lying }: DoorSetting): WaySetting => ({
  sheet,
  outline: DOOR,
  conditions: flowConditions(sheet, { air_K, material_K: null, reducer: 0, tilt_rad: lying ? 0 : Math.PI / 2 }),
});
