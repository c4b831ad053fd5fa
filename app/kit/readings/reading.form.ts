import { byUnits } from "~/kit/form/by-units";
import { readFilms } from "~/kit/form/film-readings";
import { z } from "zod";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import type { Phase } from "#core/record/kinds";

const phases = ["before", "after", "recheck"] as const satisfies readonly Phase[];

/** A reading that waited longer than a month for its server is looked at first. */
const MOST_AGE_S = 31 * 86_400;

/** One or more readings at a spot, as typed: "131", "131 128 126" or "5,1 mil". */
export const readingForm = byUnits((units) =>
  z
    .object({
      phase: z.enum(phases),
      spot: z.string().trim().min(1, "Name the spot").max(12),
      x_m: z.coerce.number().min(-0.01).max(6.01),
      y_m: z.coerce.number().min(-0.01).max(6.01),
      value: z.string({ error: "Type a reading" }).max(200),
      clientKey: z.string().max(80),
      /** How long ago it was typed: it may have waited for the server. */
      age_s: z.coerce.number().min(0).max(MOST_AGE_S).default(0),
      gauge: z.string().trim().max(40).default(""),
      template: z.literal("on").optional(),
      /** Entries of the same place that it stands in for. */
      replaces: z.string().max(2000).default(""),
    })
    .transform((v, ctx) => {
      const { problem, readings } = readFilms(v.value, units);
      if (problem !== null) {
        ctx.addIssue({ code: "custom", path: ["value"], message: problem });
        return z.NEVER;
      }
      const at = { x_m: v.x_m, y_m: v.y_m };
      const body = { phase: v.phase, spot: v.spot, at, gauge: v.gauge || "typed", readings, template: v.template === "on" };
      return { clientKey: v.clientKey, age_s: v.age_s, replaces: v.replaces.split(" ").filter(Boolean), body };
    }),
);

/** A metal strip beside a part, read before clear or after it. */
export const stripForm = (units: UnitPreferences) =>
  z
    .object({
      phase: z.enum(["before", "after"]),
      value: z.string({ error: "Type a reading" }).trim().min(1, "Type a reading").max(200),
      gauge: z.string().trim().max(40).default(""),
    })
    .transform((v, ctx) => {
      const { problem, readings } = readFilms(v.value, units);
      if (problem === null) return { phase: v.phase, gauge: v.gauge || "typed", readings };
      ctx.addIssue({ code: "custom", path: ["value"], message: problem });
      return z.NEVER;
    });

/** How many places are read, and one place more. */
export const spotPlanForm = z.object({ count: z.coerce.number().int().min(3).max(40) });
export const addSpotForm = z.object({ x_m: z.coerce.number().min(0).max(6), y_m: z.coerce.number().min(0).max(6) });
