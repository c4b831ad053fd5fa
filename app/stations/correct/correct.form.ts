import { MARK_FIELDS, type MarkField } from "./mark-fields";
import { readFilms } from "~/kit/form/film-readings";
import { z } from "zod";
import { RUN_SCHOOLS, type RunSchool } from "#core/models/correction/run-work";
import { CORRECTION_SCHOOL_IDS } from "#core/models/correction/schools";
import { COVERAGE } from "#core/kernel/units/format";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import { keysOf } from "#core/kernel/keys";
import { PANEL_PARTS, type PanelPart } from "#core/record/kinds";
import { quantity } from "~/kit/form/fields";
import { optionalReadingsGU } from "~/kit/form/gloss-readings";

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
      edges: z.enum(["left", "hand"]).default("left"),
      lines: z.enum(["hand", "left"]).default("hand"),
      part: z.union([z.enum(keysOf<PanelPart>(PANEL_PARTS)), z.literal("").transform(() => null)]).default(null),
      fill: z.enum(["yes", ""]).default(""),
    })
    .transform((v) => ({
      schoolId: v.schoolId,
      runSchool: v.runSchool,
      // Typed as every ± is shown: 95 %.
      texture: { peakToValley_m: v.texture, u_m: v.uTexture / COVERAGE, wanted_m: v.wanted },
      tape_m: v.tape,
      edges: v.edges,
      lines: v.lines,
      part: v.part,
      fill: v.fill === "yes",
    }));

/** Readings at one mark, or none when nothing is typed. */
const atMark = (units: UnitPreferences) =>
  z
    .string()
    .default("")
    .transform((text, ctx) => {
      if (text.trim() === "") return [];
      const { problem, readings } = readFilms(text, units);
      if (problem !== null) ctx.addIssue({ code: "custom", message: problem });
      return readings;
    });

/** A step that is done, with what was read at its marks before and after, and its gloss, where that was wanted. */
export const stepForm = (units: UnitPreferences) =>
  z
    .object({
      index: z.coerce.number().int().min(0).max(40),
      planId: z.string().min(1),
      note: z.string().trim().max(200).default(""),
      ...(Object.fromEntries(MARK_FIELDS.flat().map((name) => [name, atMark(units)])) as Record<MarkField, ReturnType<typeof atMark>>),
      gloss: optionalReadingsGU,
      simulated: z.literal("yes").optional(),
    })
    .transform(({ index, planId, note, gloss, simulated, ...read }, ctx) => {
      const marks = MARK_FIELDS.flatMap(([before, after]) => {
        const mark = { before: read[before], after: read[after] };
        if ((mark.before.length === 0) !== (mark.after.length === 0))
          ctx.addIssue({
            code: "custom",
            path: [mark.before.length === 0 ? before : after],
            message: "Read the same mark before and after, or leave both empty",
          });
        return mark.before.length > 0 && mark.after.length > 0 ? [mark] : [];
      });
      const [first, ...more] = marks;
      return {
        index,
        planId,
        note,
        measured: first ? { ...first, more } : null,
        gloss60_GU: gloss.length ? gloss.reduce((a, g) => a + g.gloss_GU, 0) / gloss.length : null,
        simulated: simulated === "yes",
      };
    });

export const startStepForm = z.object({ index: z.coerce.number().int().min(0).max(40), planId: z.string().min(1) });
export const planIdForm = z.object({ planId: z.string().min(1) });
