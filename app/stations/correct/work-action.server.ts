import { data } from "react-router";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import { completeStep, passAgain, startStep, stopThrough } from "#server/commands/correction";
import type { ServerContext } from "#server/context";
import type { PanelView } from "#server/views/panel-view";
import { answerForm, textOf } from "~/kit/form/answer";
import { planIdForm, startStepForm, stepForm } from "./correct.form";

/** Working through a plan, from the plan's page or from its cards in the booth view: start, done, once more, colour on the cloth. */
export function workAction(ctx: ServerContext, view: PanelView, form: FormData, { units, by }: { units: UnitPreferences; by: string }) {
  const clientKey = textOf(form, "formKey") || null;
  switch (textOf(form, "intent")) {
    case "start":
      return answerForm(form, startStepForm, async (step) => ({
        entryId: await startStep(ctx, view, { ...step, by, clientKey: clientKey && `${clientKey}-start` }),
        message: "The step's clock runs",
      }));
    case "step":
      return answerForm(form, stepForm(units), async (step) => ({
        entryId: await completeStep(ctx, view, { ...step, by, clientKey }),
        message: step.measured ? "Step done; what its mark says is in the forecast" : "Step done; its film came off the section",
      }));
    case "again":
      return answerForm(form, planIdForm, async ({ planId }) => ({
        entryId: await passAgain(ctx, view, { planId, by }),
        message: "One pass more; its film came off the section",
      }));
    case "through":
      return answerForm(form, planIdForm, async () => ({
        entryId: await stopThrough(ctx, view, { note: "", by }),
        message: "Stopped: the clear is through",
      }));
    default:
      throw data("Not understood", { status: 400 });
  }
}
