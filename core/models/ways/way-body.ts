import { z } from "zod";
import { keysOf } from "../../kernel/keys";
import { benchHabitsBody } from "../correction/bench-habits-body";
import { CORRECTION_SCHOOL_IDS } from "../correction/schools";
import { RUN_SCHOOLS, type RunSchool } from "../correction/run-work";
import { TRIGGERS, type Trigger } from "../spray/trigger";
import { COAT_DEFAULTS, COAT_LIMITS, type HouseWayBody, type PlannedCoat, WAY_DEFAULTS, WAY_LIMITS } from "./way";
import { COAT_ZONE_KEYS, FINISH_KEYS, FLATTEN_BY, type FlattenBy } from "./terms";

const L = WAY_LIMITS;
const within = ({ min, max }: { min: number; max: number }) => z.number().min(min).max(max);

/** A coat of a way as it is stored. */
export const plannedCoatBody = z.object({
  role: z.string().trim().min(1, "Name the coat").max(40),
  speedFactor: within(COAT_LIMITS.speedFactor),
  flashFactor: within(COAT_LIMITS.flashFactor),
  fluidFactor: within(COAT_LIMITS.fluidFactor).default(COAT_DEFAULTS.fluidFactor),
  distanceFactor: within(COAT_LIMITS.distanceFactor).default(COAT_DEFAULTS.distanceFactor),
  pressureShift_Pa: within(COAT_LIMITS.pressureShift_Pa).default(COAT_DEFAULTS.pressureShift_Pa),
  overlapShift: within(COAT_LIMITS.overlapShift).default(COAT_DEFAULTS.overlapShift),
  reducerShift: within(COAT_LIMITS.reducerShift).default(COAT_DEFAULTS.reducerShift),
  zone: z.enum(COAT_ZONE_KEYS).default(COAT_DEFAULTS.zone),
  sandAfter: z.boolean().default(COAT_DEFAULTS.sandAfter),
}) satisfies z.ZodType<PlannedCoat>;

/** A house way as it is stored. */
export const houseWayBody = z.object({
  name: z.string().trim().min(1, "Give the way a name").max(L.nameLength),
  goodFor: z.string().trim().max(L.noteLength).default(WAY_DEFAULTS.goodFor),
  price: z.string().trim().max(L.noteLength).default(WAY_DEFAULTS.price),
  finish: z.enum(FINISH_KEYS),
  coats: z.array(plannedCoatBody).min(1, "At least one coat").max(L.coats, `At most ${L.coats} coats`),
  gun: z
    .object({
      distance_m: within(L.distance_m).nullable(),
      pressure_Pa: within(L.pressure_Pa).nullable(),
      turns: within(L.turns).nullable().default(null),
      lyingTurns: within(L.turns).nullable().default(null),
      fan_m: within(L.fan_m).nullable().default(null),
    })
    .default(WAY_DEFAULTS.gun),
  trigger: z.enum(keysOf<Trigger>(TRIGGERS)).default(WAY_DEFAULTS.trigger),
  lastPaper: z.int().min(L.lastPaper.min).max(L.lastPaper.max).default(WAY_DEFAULTS.lastPaper),
  flatten: z
    .object({
      grit: z.int().min(L.flattenGrit.min).max(L.flattenGrit.max),
      by: z.enum(keysOf<FlattenBy>(FLATTEN_BY)),
      removal_m: within(L.flattenRemoval_m),
      u_m: within(L.flattenU_m),
    })
    .default(WAY_DEFAULTS.flatten),
  airBeforeHeat_s: within(L.airBeforeHeat_s).nullable().default(WAY_DEFAULTS.airBeforeHeat_s),
  correctAfter_s: within(L.correctAfter_s).default(WAY_DEFAULTS.correctAfter_s),
  correction: z.enum(CORRECTION_SCHOOL_IDS),
  runSchool: z.enum(keysOf<RunSchool>(RUN_SCHOOLS)).default(WAY_DEFAULTS.runSchool),
  bench: benchHabitsBody.default(WAY_DEFAULTS.bench),
}) satisfies z.ZodType<HouseWayBody>;
