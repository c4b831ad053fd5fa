import { acting } from "~/kit/form/in-words.server";
import { storePlan } from "#server/commands/correction";
import { serverContext } from "#server/running";
import { answerForm, textOf } from "~/kit/form/answer";
import { choiceForm } from "./correct.form";
import { guardedAction } from "~/kit/form/guarded-action";
import { panelOr404 } from "~/kit/http/panel.server";
import { formPrefs } from "~/kit/http/prefs.server";
import { workAction } from "./work-action.server";
import { formOf } from "~/kit/http/body.server";
import type { Route } from "./+types/correct.route";
import { CorrectDesk } from "./correct.desk";

export const action = acting(async ({ request, params: { jobId, panelId } }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const view = await panelOr404(ctx, jobId, panelId);
  const form = await formOf(request);
  const { units, by } = await formPrefs(request, form);
  if (textOf(form, "intent") !== "plan") return workAction(ctx, view, form, { units, by });
  return answerForm(form, choiceForm(units), async (choice) => ({
    entryId: await storePlan(ctx, view, { choice, by, clientKey: textOf(form, "formKey") || null }),
    message: "Plan stored with its verdict",
  }));
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
export default function Correct() {
  return <CorrectDesk />;
}
