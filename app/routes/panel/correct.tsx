import { useState } from "react";
import { Link } from "react-router";
import { storePlan } from "#server/commands/correction";
import { serverContext } from "#server/context";
import { CorrectTabs } from "~/correct/correct-tabs";
import { PlanDesk } from "~/correct/plan-desk";
import { PlanWork } from "~/correct/plan-work";
import { answerForm, textOf } from "~/forms/answer";
import { choiceForm } from "~/forms/correct-forms";
import { guardedAction } from "~/lib/guarded-action";
import { panelOr404 } from "~/lib/panel.server";
import { formPrefs } from "~/lib/prefs.server";
import { workAction } from "~/lib/work-action.server";
import type { Route } from "./+types/correct";
import { usePanel } from "./layout";

export async function action({ request, params: { jobId, panelId } }: Route.ActionArgs) {
  const ctx = await serverContext();
  const view = await panelOr404(ctx, jobId, panelId);
  const form = await request.formData();
  const { units, by } = await formPrefs(request, form);
  if (textOf(form, "intent") !== "plan") return workAction(ctx, view, form, { units, by });
  return answerForm(form, choiceForm(units), async (choice) => ({
    entryId: await storePlan(ctx, view, { choice, by, clientKey: textOf(form, "formKey") || null }),
    message: "Plan stored with its verdict",
  }));
}

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);

export default function Correct() {
  const { view, base } = usePanel();
  const { plan } = view.state;
  const open = plan !== null && view.state.stepsDone.length < plan.body.steps.length;
  const [replan, setReplan] = useState(false);
  if (view.state.observations.filter((o) => o.layer === "after").length === 0)
    return (
      <section className="max-w-[60ch] space-y-4">
        <CorrectTabs base={base} />
        <h2 className="text-[31px] leading-[1.12] font-semibold tracking-tight">
          Nothing is read after clear yet, so nothing can be said.
        </h2>
        <p className="text-ink2">Three spots are the least for a verdict; eight tell the edges from the middle.</p>
        <Link to={`${base}/inspect`} className="press" data-kind="main">
          Read the film
        </Link>
      </section>
    );
  return (
    <>
      <CorrectTabs base={base} />
      {plan && !replan ? <PlanWork onReplan={() => setReplan(true)} finished={!open} /> : <PlanDesk onStored={() => setReplan(false)} />}
    </>
  );
}
