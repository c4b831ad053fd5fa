import { z } from "zod";
import { BOOTH_PARTS_MOST } from "#core/models/schedule/booth-problem";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import { showTimeOfDay } from "#core/kernel/units/format";
import type { BoothRules } from "#server/repos/booth-plan-repo";
import type { ShownField } from "~/kit/form/answer";
import { initial } from "~/kit/form/initial";
import { optionalQuantity, quantity, wholeNumber } from "~/kit/form/fields";
import { WET_EDGES } from "./wet-edges";

const DAY_MS = 86_400_000;
const MINUTE_MS = 60_000;
const MS = 1000;

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

/** The rules as the form starts, field by field: what it shows, and what it is told of rules that another window has set. */
export function rulesTexts(
  { start_ms, rules }: Pick<BoothRules, "start_ms" | "rules">,
  midnight_ms: number,
  units: UnitPreferences,
): Record<"start" | "end" | "painters" | "places" | "mix" | "pots" | "carry", string> {
  const clock = (ms: number) => showTimeOfDay((ms - midnight_ms) / MS);
  return {
    start: clock(start_ms),
    end: rules.end_ms === null ? "" : clock(rules.end_ms),
    painters: String(rules.painters),
    places: String(rules.places),
    mix: initial("duration", rules.mix_s, units),
    pots: rules.potsMost === null ? "" : String(rules.potsMost),
    carry: initial("duration", rules.carryOut_s, units),
  };
}

/** The same of what stands there now, with the parts as the form names them; a part it has beyond them is named under the parts. */
export function rulesShown(there: BoothRules, midnight_ms: number, units: UnitPreferences): Record<string, ShownField> {
  const parts = there.parts.flatMap((p): [string, ShownField][] => [
    [`sides-${p.panelId}`, String(p.sides)],
    [`group-${p.panelId}`, { value: p.group ?? "", said: p.group ?? "none" }],
    [`spray-${p.panelId}`, initial("duration", p.spray_s, units)],
  ]);
  return { ...rulesTexts(there, midnight_ms, units), ...Object.fromEntries(parts) };
}

export const fixCoatForm = z.object({
  version: z.coerce.number().int().min(0),
  panelId: z.string().min(1),
  coat: z.coerce.number().int().min(1).max(40),
  start_ms: z.union([z.literal("").transform(() => null), z.coerce.number().int()]),
});
