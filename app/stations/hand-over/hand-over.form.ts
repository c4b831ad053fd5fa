import { z } from "zod";
import { keysOf } from "#core/kernel/keys";
import { EYE_COLOURS, EYE_LIGHTS, type EyeColour, type EyeLight, OUTCOMES, type Outcome } from "#core/record/kinds";

export const handOverForm = z.object({ note: z.string().trim().max(400).default("") });
export const outcomeForm = z.object({ result: z.enum(keysOf<Outcome>(OUTCOMES)) });
export const eyeForm = z
  .object({
    colour: z.enum(keysOf<EyeColour>(EYE_COLOURS), "Say what you see"),
    covered: z.enum(["yes", "no"], "Say what you see"),
    light: z.enum(keysOf<EyeLight>(EYE_LIGHTS)),
  })
  .transform((v) => ({ ...v, covered: v.covered === "yes" }));
