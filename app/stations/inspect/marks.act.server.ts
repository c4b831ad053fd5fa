import { z } from "zod";
import { DEFECT_KINDS } from "#core/models/defects/kinds";
import { SEEN_TO } from "#core/record/kinds";
import { recordEntry } from "#server/commands/record-entry";
import { markSeenTo } from "#server/commands/see-to";
import type { Act } from "~/kit/form/act";
import { answerForm, textOf } from "~/kit/form/answer";
import { photoOf } from "~/kit/http/photo.server";
import { capital } from "~/kit/words/capital";
import { defectForm, seenToForm } from "./inspect.form";

/** What was seen on a panel: a fault at its place, nothing at all, or that one was seen to. */
export const marksAct: Act = async (ctx, { panelId, look }, form, { units, by }) => {
  const clientKey = textOf(form, "formKey") || null;
  switch (textOf(form, "intent")) {
    case "lookedOver":
      return answerForm(form, z.object({}), async () => ({
        entryId: await recordEntry(ctx, { panelId, kind: "lookedOver", body: {}, by, clientKey }),
        message: "Looked over: nothing found",
      }));
    case "seenTo":
      return answerForm(form, seenToForm, async (body) => ({
        entryId: await markSeenTo(ctx, { panelId, body, by, clientKey }),
        message: `${capital(SEEN_TO[body.as])}: it holds nothing back any more`,
      }));
    case "defect": {
      const { panel } = await look();
      return answerForm(form, defectForm(units, panel.shape.outline), async (body) => {
        const photoId = await photoOf(ctx, form);
        return {
          entryId: await recordEntry(ctx, { panelId, kind: "defect", body: { ...body, photoId }, by, clientKey }),
          message: `${DEFECT_KINDS[body.kind].name} placed`,
        };
      });
    }
    default:
      return null;
  }
};
