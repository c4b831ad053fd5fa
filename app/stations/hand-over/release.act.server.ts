import { OUTCOMES } from "#core/record/kinds";
import { handOver } from "#server/commands/hand-over";
import { recordEntry } from "#server/commands/record-entry";
import type { Act } from "~/kit/form/act";
import { answerForm, textOf } from "~/kit/form/answer";
import { eyeForm, handOverForm, outcomeForm } from "./hand-over.form";

/** What is said before a panel goes out, and that it goes. */
export const releaseAct: Act = async (ctx, { panelId, look }, form, { by }) => {
  switch (textOf(form, "intent")) {
    case "outcome":
      return answerForm(form, outcomeForm, async (body) => ({
        entryId: await recordEntry(ctx, { panelId, kind: "outcome", body, by }),
        message: `Came out ${OUTCOMES[body.result]}: noted`,
      }));
    case "eye":
      return answerForm(form, eyeForm, async (body) => ({
        entryId: await recordEntry(ctx, { panelId, kind: "eye", body, by }),
        message: "Noted by eye",
      }));
    case "handOver":
      return answerForm(form, handOverForm, async ({ note }) => ({
        entryId: await handOver(ctx, await look(), { note, by, clientKey: textOf(form, "formKey") || null }),
        message: "Handed over",
      }));
    default:
      return null;
  }
};
