import { serverContext } from "#server/context";
import { WorkDesk } from "~/correct/work-desk";
import { guardedAction } from "~/lib/guarded-action";
import { panelOr404 } from "~/lib/panel.server";
import { formPrefs } from "~/lib/prefs.server";
import { workAction } from "~/lib/work-action.server";
import { PageHeader } from "~/ui/page-header";
import type { Route } from "./+types/booth-work";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: loaderData ? `${loaderData.job.vehicle}, ${loaderData.panel.name}: work · Yakamoz` : "Yakamoz" },
];

export const loader = async ({ params: { jobId, panelId } }: Route.LoaderArgs) => panelOr404(await serverContext(), jobId, panelId);

export async function action({ request, params: { jobId, panelId } }: Route.ActionArgs) {
  const ctx = await serverContext();
  const view = await panelOr404(ctx, jobId, panelId);
  const form = await request.formData();
  return workAction(ctx, view, form, await formPrefs(request, form));
}

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);

export default function BoothWork({ loaderData: view }: Route.ComponentProps) {
  return (
    <>
      <PageHeader title={`${view.job.vehicle}, ${view.panel.name.toLowerCase()}`} note="Booth view: work" />
      <WorkDesk view={view} />
    </>
  );
}
