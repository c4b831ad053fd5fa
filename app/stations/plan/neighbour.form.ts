import { z } from "zod";
import { readFilms } from "~/kit/form/film-readings";
import { optionalQuantity } from "~/kit/form/fields";
import type { UnitPreferences } from "#core/kernel/units/quantities";

const RATING = { min: 1, max: 5 };
const GLOSS = { min: 0, max: 200 };

/** The panel beside as it is typed: its name, and whatever was read or seen of it. */
export const neighbourForm = (units: UnitPreferences) =>
  z
    .object({
      name: z.string().trim().min(1, "Which panel is it? Wing, rear door …").max(60),
      films: z.string().trim().default(""),
      rating: optionalQuantity("count", units, RATING),
      gloss: optionalQuantity("count", units, GLOSS),
    })
    .transform((v, ctx) => {
      const { problem, readings } = v.films === "" ? { problem: null, readings: [] } : readFilms(v.films, units);
      if (problem !== null) {
        ctx.addIssue({ code: "custom", path: ["films"], message: problem });
        return z.NEVER;
      }
      if (readings.length > 20) {
        ctx.addIssue({ code: "custom", path: ["films"], message: "At most 20 readings" });
        return z.NEVER;
      }
      return { name: v.name, readings, rating: v.rating, gloss60_GU: v.gloss };
    });
