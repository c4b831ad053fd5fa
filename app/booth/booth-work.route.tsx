import { acting } from "~/kit/form/in-words.server";
import { data } from "react-router";
import { serverContext } from "#server/running";
import { WorkDesk } from "~/stations/correct/work.desk";
import { guardedAction } from "~/kit/form/guarded-action";
import { panelOr404 } from "~/kit/http/panel.server";
import { formPrefs } from "~/kit/http/prefs.server";
import { workAct } from "~/stations/correct/work.act.server";
import { PageHeader } from "~/kit/shell/page-header";
import { formOf } from "~/kit/http/body.server";
import type { Route } from "./+types/booth-work.route";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: loaderData ? `${loaderData.job.vehicle}, ${loaderData.panel.name}: work · Yakamoz` : "Yakamoz" },
];

export const loader = async ({ params: { jobId, panelId } }: Route.LoaderArgs) => panelOr404(await serverContext(), jobId, panelId);

export const action = acting(async ({ request, params: { jobId, panelId } }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const form = await formOf(request);
  const at = { jobId, panelId, look: () => panelOr404(ctx, jobId, panelId) };
  const answer = await workAct(ctx, at, form, await formPrefs(request, form));
  if (!answer) throw data("Not understood", { status: 400 });
  return answer;
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);

export default function BoothWork({ loaderData: view }: Route.ComponentProps) {
  return (
    <>
      <PageHeader title={`${view.job.vehicle}, ${view.panel.name.toLowerCase()}`} note="Booth view: work" />
      <WorkDesk view={view} />
    </>
  );
}
