import { z } from "zod";
import { RUN_SCHOOLS, type RunSchool } from "#core/correction/run-work";
import { CORRECTION_SCHOOL_IDS } from "#core/correction/schools";
import type { UnitPreferences } from "#core/units/quantities";
import { quantity } from "./fields";

const runSchools = Object.keys(RUN_SCHOOLS) as [RunSchool, ...RunSchool[]];

/** The choice made on Correct: schools, texture to level, rim to tape. */
export const choiceForm = (units: UnitPreferences) =>
  z
    .object({
      schoolId: z.enum(CORRECTION_SCHOOL_IDS),
      runSchool: z.union([z.enum(runSchools), z.literal("").transform(() => null)]),
      texture: quantity("film", units, { min: 0, max: 200e-6 }),
      uTexture: quantity("film", units, { min: 0, max: 100e-6 }),
      wanted: quantity("film", units, { min: 0, max: 200e-6 }),
      tape: quantity("length", units, { min: 0, max: 0.3 }),
    })
    .transform((v) => ({
      schoolId: v.schoolId,
      runSchool: v.runSchool,
      texture: { peakToValley_m: v.texture, u_m: v.uTexture, wanted_m: v.wanted },
      tape_m: v.tape,
    }));

export const stepForm = z.object({
  index: z.coerce.number().int().min(0).max(40),
  planId: z.string().min(1),
  note: z.string().trim().max(200).default(""),
});

export const planIdForm = z.object({ planId: z.string().min(1) });
