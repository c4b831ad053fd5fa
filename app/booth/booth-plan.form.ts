import { z } from "zod";
import { BOOTH_PARTS_MOST } from "#core/models/schedule/booth-problem";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import { optionalQuantity, quantity, wholeNumber } from "~/kit/form/fields";
import { WET_EDGES } from "./wet-edges";

const DAY_MS = 86_400_000;
const MINUTE_MS = 60_000;

const timeOfDay = z
  .string({ error: "Type a time, as 14:30" })
  .trim()
  .regex(/^([01]?\d|2[0-3]):[0-5]\d$/, "Type a time, as 14:30")
  .transform((text) => {
    const [hours, minutes] = text.split(":").map(Number) as [number, number];
    return (hours * 60 + minutes) * MINUTE_MS;
  });
const list = z
  .union([z.string(), z.array(z.string())])
  .optional()
  .transform((v) => (v === undefined ? [] : Array.isArray(v) ? v : [v]));
const whole = (most: number) => wholeNumber(1, most);

/** The day's plan as typed: rules, and for every chosen part its sides, its wet edge and what a coat takes. */
export const boothPlanForm = (units: UnitPreferences) =>
  z
    .looseObject({
      midnight: z.coerce.number().int(),
      start: timeOfDay,
      end: z.union([z.literal("").transform(() => null), timeOfDay]).optional(),
      painters: whole(8),
      places: whole(60),
      mix: quantity("duration", units, { min: 0, max: 7200 }),
      carry: quantity("duration", units, { min: 0, max: 86_400 }),
      pots: z.union([z.literal("").transform(() => null), wholeNumber(0, 99)]).optional(),
      part: list,
    })
    .transform((v, ctx) => {
      if (v.part.length === 0) ctx.addIssue({ code: "custom", path: ["part"], message: "Choose at least one part" });
      if (v.part.length > BOOTH_PARTS_MOST)
        ctx.addIssue({
          code: "custom",
          path: ["part"],
          message: `A plan has at most ${BOOTH_PARTS_MOST} parts: plan the rest when some are done`,
        });
      const minutes = optionalQuantity("duration", units, { min: 15, max: 7200 });
      const parts = v.part.map((panelId) => {
        const typed = minutes.safeParse(v[`spray-${panelId}`]);
        if (!typed.success)
          for (const issue of typed.error.issues) ctx.addIssue({ code: "custom", path: [`spray-${panelId}`], message: issue.message });
        const group = WET_EDGES.find((g) => g === v[`group-${panelId}`]) ?? null;
        return {
          panelId,
          sides: v[`sides-${panelId}`] === "2" ? (2 as const) : (1 as const),
          group,
          spray_s: typed.success ? typed.data : null,
        };
      });
      const start_ms = v.midnight + v.start;
      const end = v.end ?? null;
      const end_ms = end === null ? null : v.midnight + end + (end <= v.start ? DAY_MS : 0);
      const rules = { painters: v.painters, places: v.places, mix_s: v.mix, potsMost: v.pots ?? null, carryOut_s: v.carry, end_ms };
      return { start_ms, parts, rules };
    });

export const fixCoatForm = z.object({
  version: z.coerce.number().int().min(0),
  panelId: z.string().min(1),
  coat: z.coerce.number().int().min(1).max(40),
  start_ms: z.union([z.literal("").transform(() => null), z.coerce.number().int()]),
});
