import { may } from "#server/access/rights";
import { serverContext } from "#server/running";
import { panelOr404 } from "~/kit/http/panel.server";
import { viewInRegion } from "~/kit/words/region";
import type { Route } from "./+types/panel.route";
import { unlessListMoved } from "~/kit/list/list-state";
import { PanelLayoutDesk } from "./panel.desk";

export { unlessListMoved as shouldRevalidate };

export async function loader({ params }: Route.LoaderArgs) {
  const ctx = await serverContext();
  const view = await panelOr404(ctx, params.jobId, params.panelId);
  return viewInRegion(may(ctx.actor.role, "costs") ? view : { ...view, rates: null });
}

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: loaderData ? `${loaderData.job.vehicle}, ${loaderData.panel.name} · Yakamoz` : "Yakamoz" },
];
export default function PanelLayout({ loaderData, params }: Route.ComponentProps) {
  return <PanelLayoutDesk loaderData={loaderData} params={params} />;
}
