import { completeStep, passAgain, startStep, stopThrough, storePlan } from "#server/commands/correction";
import type { Act } from "~/kit/form/act";
import { answerForm, textOf } from "~/kit/form/answer";
import { choiceForm, planIdForm, startStepForm, stepForm } from "./correct.form";

/** A plan stored, and worked through, from its own page, the course or the cards of the booth view: start, done, once more, colour on the cloth. */
export const workAct: Act = async (ctx, { look }, form, { units, by }) => {
  const clientKey = textOf(form, "formKey") || null;
  switch (textOf(form, "intent")) {
    case "plan":
      return answerForm(form, choiceForm(units), async (choice) => ({
        entryId: await storePlan(ctx, await look(), { choice, by, clientKey }),
        message: "Plan stored with its verdict",
      }));
    case "start":
      return answerForm(form, startStepForm, async (step) => ({
        entryId: await startStep(ctx, await look(), { ...step, by, clientKey: clientKey && `${clientKey}-start` }),
        message: "The step's clock runs",
      }));
    case "step":
      return answerForm(form, stepForm(units), async (step) => ({
        entryId: await completeStep(ctx, await look(), { ...step, by, clientKey }),
        message: step.measured ? "Step done; what its mark says is in the forecast" : "Step done; its film came off the section",
      }));
    case "again":
      return answerForm(form, planIdForm, async ({ planId }) => ({
        entryId: await passAgain(ctx, await look(), { planId, by }),
        message: "One pass more; its film came off the section",
      }));
    case "through":
      return answerForm(form, planIdForm, async () => ({
        entryId: await stopThrough(ctx, await look(), { note: "", by }),
        message: "Stopped: the clear is through",
      }));
    default:
      return null;
  }
};
