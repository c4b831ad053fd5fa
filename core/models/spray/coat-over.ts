import type { Polygon } from "../../kernel/geometry/geometry";
import { type GunSettings, fanOf } from "./deposit";
import { type RowPlan, rowsOver } from "./row-plan";
import { coatVolume, strokesOf } from "./strokes";
import type { Trigger } from "./trigger";

export interface CoatVolume {
  /** Ready-to-spray material through the gun, and how long the passes take. */
  volume_m3: number;
  time_s: number;
  strokes: number;
}

/** A part that is sprayed over: its outline, and where its rows lie if they were planned. */
export interface PartOver {
  outline: Polygon;
  rows?: RowPlan | undefined;
}

export interface CoatOver {
  trigger?: Trigger | undefined;
  /** Where its rows lie, for those that were planned, and which coat it is. */
  rows?: RowPlan | undefined;
  number?: number | undefined;
}

/** Material and time of one coat over a whole part with this gun: its strokes by its own fan. @throws RangeError */
export function coatOver(outline: Polygon, gun: GunSettings, { trigger, rows, number }: CoatOver = {}): CoatVolume {
  const { overlap, handSpeed_m_s, fluidRate_m3_s } = gun;
  const strokes = strokesOf(rowsOver(outline, { fan_m: fanOf(gun), overlap }, rows, number), { handSpeed_m_s, trigger });
  return { volume_m3: coatVolume(strokes, fluidRate_m3_s), time_s: strokes.time_s, strokes: strokes.count };
}
