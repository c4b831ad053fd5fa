import { recordEntry } from "#server/commands/record-entry";
import type { Act } from "~/kit/form/act";
import { answerForm, textOf } from "~/kit/form/answer";
import { glossForm } from "~/kit/form/gloss-readings";

/** Gloss as somebody read and typed it: on its page, and where a part goes out by it. */
export const glossAct: Act = async (ctx, { panelId }, form, { by }) =>
  textOf(form, "intent") === "gloss"
    ? answerForm(form, glossForm, async (body) => ({
        entryId: await recordEntry(ctx, { panelId, kind: "gloss", body, by, clientKey: textOf(form, "formKey") || null }),
        message: "Gloss stored",
      }))
    : null;
