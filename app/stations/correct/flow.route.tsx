import { acting } from "~/kit/form/in-words.server";
import { data, redirect } from "react-router";
import { flowPlanOf } from "#core/judge/flow-question";
import { plannedCoatBody } from "#core/models/ways/way-body";
import { z } from "zod";
import { planFlowCoat } from "#server/commands/flow-coat";
import { Refusal } from "#server/commands/refusal";
import { serverContext } from "#server/running";
import { optionSetting } from "#server/views/options-view";
import { answerForm, textOf } from "~/kit/form/answer";
import { guardedAction } from "~/kit/form/guarded-action";
import { formOf } from "~/kit/http/body.server";
import { panelOr404 } from "~/kit/http/panel.server";
import { readPrefs } from "~/kit/http/prefs.server";
import { usePanel } from "~/kit/panel/use-panel";
import { FlowDesk } from "./flow.desk";
import { CorrectTabs } from "./tabs";
import type { Route } from "./+types/flow.route";

export async function loader({ params: { jobId, panelId } }: Route.LoaderArgs) {
  const ctx = await serverContext();
  const view = await panelOr404(ctx, jobId, panelId);
  return { ...optionSetting(ctx, view), plan: flowPlanOf(view) };
}

const flowForm = z.object({
  coats: z.coerce.number().int().min(1).max(4),
  speedFactor: z.coerce.number().pipe(plannedCoatBody.shape.speedFactor),
  reducerShift: z.coerce.number().pipe(plannedCoatBody.shape.reducerShift.unwrap()),
});

export const action = acting(async ({ request, params: { jobId, panelId } }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const form = await formOf(request);
  if (textOf(form, "intent") !== "flow") throw data("Not understood", { status: 400 });
  const { by } = await readPrefs(request);
  const done = { yes: false };
  const answer = await answerForm(form, flowForm, async ({ coats, speedFactor, reducerShift }) => {
    const held = flowPlanOf(await panelOr404(ctx, jobId, panelId))?.held.find((f) => f.level === "stop");
    if (held) throw new Refusal(null, `${held.name} comes first: nothing is laid over it`);
    const coat = plannedCoatBody.parse({ role: "flow", speedFactor, flashFactor: 1, reducerShift });
    await planFlowCoat(ctx, { jobId, panelId, coat, coats, by, clientKey: textOf(form, "formKey") || null });
    done.yes = true;
  });
  return done.yes ? redirect(`/jobs/${jobId}/panels/${panelId}/course`) : answer;
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);

/** Flat and re-clear: whether there is film enough, how the coats are sprayed, and what polishing would do instead. */
export default function FlowCoatPage({ loaderData, actionData }: Route.ComponentProps) {
  const { base } = usePanel();
  return (
    <>
      <CorrectTabs base={base} />
      <FlowDesk {...loaderData} said={actionData?.ok === false ? actionData.message : null} />
    </>
  );
}
