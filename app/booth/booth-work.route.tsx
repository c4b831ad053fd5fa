import { acting } from "~/kit/form/in-words.server";
import { serverContext } from "#server/running";
import { WorkDesk } from "~/stations/correct/work.desk";
import { panelActs } from "~/kit/form/panel-acts.server";
import { guardedAction } from "~/kit/form/guarded-action";
import { panelOr404 } from "~/kit/http/panel.server";
import { workAct } from "~/stations/correct/work.act.server";
import { PageHeader } from "~/kit/shell/page-header";
import type { Route } from "./+types/booth-work.route";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: loaderData ? `${loaderData.job.vehicle}, ${loaderData.panel.name}: work · Yakamoz` : "Yakamoz" },
];

export const loader = async ({ params: { jobId, panelId } }: Route.LoaderArgs) => panelOr404(await serverContext(), jobId, panelId);

export const action = acting(panelActs(workAct));

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);

export default function BoothWork({ loaderData: view }: Route.ComponentProps) {
  return (
    <>
      <PageHeader title={`${view.job.vehicle}, ${view.panel.name.toLowerCase()}`} note="Booth view: work" />
      <WorkDesk view={view} />
    </>
  );
}
