import { acting } from "~/kit/form/in-words.server";
import { data, redirect } from "react-router";
import { addPanel } from "#server/commands/jobs";
import { serverContext } from "#server/running";
import { getJob } from "#server/repos/job-repo";
import { listPanels } from "#server/repos/panel-repo";
import { listClears } from "#server/repos/product-repo";
import { answerForm } from "~/kit/form/answer";
import { panelForm } from "./job.form";
import { guardedAction } from "~/kit/form/guarded-action";
import { formPrefs } from "~/kit/http/prefs.server";
import { productChoice } from "./panel-fields";
import { formOf } from "~/kit/http/body.server";
import type { Route } from "./+types/add-panel.route";
import { AddPanelDesk } from "./add-panel.desk";

export const meta: Route.MetaFunction = () => [{ title: "Add a panel · Yakamoz" }];

export async function loader({ params }: Route.LoaderArgs) {
  const ctx = await serverContext();
  const [job, panels, products] = await Promise.all([getJob(ctx.db, params.jobId), listPanels(ctx.db, params.jobId), listClears(ctx.db)]);
  if (!job) throw data("This job is not in the file.", { status: 404 });
  return {
    job,
    formKey: ctx.newId(),
    products: products.map(productChoice),
    /** As the panel before it. */
    lastRevisionId: panels.at(-1)?.productRevisionId ?? null,
  };
}

export const action = acting(async ({ request, params }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const form = await formOf(request);
  const { units } = await formPrefs(request, form);
  const made = { panelId: "" };
  const answer = await answerForm(form, panelForm(units), async ({ panels: [panel, ...more], formKey }) => {
    made.panelId = await addPanel(ctx, params.jobId, panel, formKey, more);
  });
  return made.panelId ? redirect(`/jobs/${params.jobId}/panels/${made.panelId}/course`) : answer;
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
export default function AddPanel({ loaderData, actionData }: Route.ComponentProps) {
  return <AddPanelDesk loaderData={loaderData} actionData={actionData} />;
}
