import { serverContext } from "#server/running";
import { panelOr404 } from "~/kit/http/panel.server";
import { viewInRegion } from "~/kit/words/region";
import type { Route } from "./+types/panel.route";
import { unlessListMoved } from "~/kit/list/list-state";
import { PanelLayoutDesk } from "./panel.desk";

export { unlessListMoved as shouldRevalidate };

export async function loader({ params }: Route.LoaderArgs) {
  return viewInRegion(await panelOr404(await serverContext(), params.jobId, params.panelId));
}

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: loaderData ? `${loaderData.job.vehicle}, ${loaderData.panel.name} · Yakamoz` : "Yakamoz" },
];
export default function PanelLayout({ loaderData, params }: Route.ComponentProps) {
  return <PanelLayoutDesk loaderData={loaderData} params={params} />;
}
