import { z } from "zod";
import { PATTERN_CHECK_IDS } from "./gun-curve";

/** A gun as a shop keeps it: needle, timed cups, fan and the settings that are offered. SI. */
export const gunBody = z.object({
  name: z.string().trim().min(1, "Give the gun a name").max(60),
  nozzle_m: z.number().min(0.3e-3, "Below 0.3 mm is no nozzle").max(4e-3, "Above 4 mm is no nozzle").nullable(),
  allTurns: z.number().min(1.5).max(10),
  cups: z
    .array(z.object({ turns: z.number().min(0.1).max(10), volume_m3: z.number().positive().max(2e-3), time_s: z.number().min(1).max(600) }))
    .max(30),
  /** Fan seen on paper and the distance it was seen at. */
  fan: z.object({ fan_m: z.number().min(0.01).max(1), distance_m: z.number().min(0.05).max(0.5) }).nullable(),
  checks: z.array(z.enum(PATTERN_CHECK_IDS)),
  settings: z.object({
    turns: z.number().min(0.1).max(10),
    pressure_Pa: z.number().min(0.3e5).max(6e5),
    distance_m: z.number().min(0.05).max(0.5),
    overlap: z.number().min(0).max(0.9),
    handSpeed_m_s: z.number().min(0.05).max(3),
  }),
});
export type GunBody = z.infer<typeof gunBody>;
