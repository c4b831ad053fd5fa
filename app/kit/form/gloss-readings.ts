import { z } from "zod";
import { MATTE_RULE_IDS } from "#core/models/gloss/matte-knowledge";
import { parseQuantity } from "#core/kernel/units/parse";

export const glossAngle = z.enum(["20", "60", "85"]).transform((a) => Number(a) as 20 | 60 | 85);
const MOST = 40;
const METER_READINGS = 5;

/** Gloss readings as typed: several with spaces between. */
function readGloss(text: string, ctx: z.core.$RefinementCtx<unknown>): { gloss_GU: number; entered: string }[] {
  const cells = text.trim().split(/\s+/).filter(Boolean);
  const say = (message: string) => {
    ctx.addIssue({ code: "custom", message });
    return z.NEVER;
  };
  if (cells.length === 0) return say("Type a reading");
  if (cells.length > MOST) return say(`At most ${MOST} at once`);
  const read = cells.map((cell) => ({ cell, parsed: parseQuantity("gloss", cell, "GU") }));
  const bad = read.find((r) => !r.parsed.ok);
  if (bad && !bad.parsed.ok) return say(bad.parsed.message);
  const values = read.map(({ cell, parsed }) => ({ gloss_GU: parsed.ok ? parsed.si : NaN, entered: cell }));
  const out = values.find((v) => v.gloss_GU < 0 || v.gloss_GU > 200);
  return out ? say(`${out.entered}: gloss lies between 0 and 200 GU`) : values;
}

export const readingsGU = z.string({ error: "Type a reading" }).transform(readGloss);
/** The same, or none when nothing is typed. */
export const optionalReadingsGU = z
  .string()
  .default("")
  .transform((text, ctx) => (text.trim() === "" ? [] : readGloss(text, ctx)));

const place = z.string().trim().max(60).default("");
const role = z.enum(["target", "part"], { error: "Say what was read: the vehicle, or the sprayed part" });
export const glossForm = z.object({ role, angle: glossAngle, place, readings: readingsGU }).transform((v) => ({ ...v, meter: "typed" }));
export const glossMeterForm = z.object({ role, angle: glossAngle, place }).transform((v) => ({ ...v, count: METER_READINGS }));
export const matteCheckForm = z.object({
  rules: z.union([z.array(z.enum(MATTE_RULE_IDS)), z.enum(MATTE_RULE_IDS).transform((r) => [r])]).default([]),
});

const shareText = z.coerce.number().min(0).max(1);
/** A mix taken for a gloss, as the page worked it out. */
export const matteMixForm = z
  .object({
    share: shareText,
    target: z.coerce.number().min(0.5).max(100),
    low: z.union([z.literal("").transform(() => null), shareText]),
    high: z.union([z.literal("").transform(() => null), shareText]),
    from: z.enum(["cards", "sheet", "told"]),
  })
  .transform(({ target, ...v }) => ({ ...v, target_GU: target }));
