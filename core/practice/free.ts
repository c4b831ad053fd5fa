import { z } from "zod";
import { SHAPES, SHAPE_KINDS } from "../kernel/geometry/shapes";
import { SPEED_EVAPORATION, type ActivatorSpeed } from "../models/spray/constants";
import { type Exercise, FREE_PASS, USUAL } from "./exercises";
import { FREE_AIR_K } from "./free-air";

const SPEEDS = Object.keys(SPEED_EVAPORATION) as [ActivatorSpeed, ...ActivatorSpeed[]];
const MOST_COATS = 3;

/** What somebody has chosen to hang and to spray it with; the clear and the way by their id. */
export const freeChoice = z.object({
  part: z.enum(SHAPE_KINDS),
  hangs: z.enum(["upright", "lying"]),
  air_K: z.coerce.number().min(FREE_AIR_K[0]).max(FREE_AIR_K.at(-1)!),
  speed: z.enum(SPEEDS),
  clear: z.string().max(100),
  way: z.string().max(100),
  coats: z.coerce.number().int().min(1).max(MOST_COATS),
});
export type FreeChoice = z.infer<typeof freeChoice>;

/** A bench with what somebody has chosen; passed as any of its size would. */
export function freeExercise({ part, hangs, air_K, speed, way, coats }: FreeChoice): Exercise {
  return {
    ...USUAL,
    name: "Your own choice",
    aim: "What hangs is yours to choose",
    part,
    size_m: SHAPES[part].size_m,
    tilt_rad: hangs === "lying" ? 0 : Math.PI / 2,
    air_K,
    speed,
    way,
    coats,
    level: "figures",
    pass: FREE_PASS,
  };
}
