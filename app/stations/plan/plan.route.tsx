import { serverContext } from "#server/running";
import { loadPlanAhead } from "#server/views/plan-ahead-view";
import { panelOr404 } from "~/kit/http/panel.server";
import type { Route } from "./+types/plan.route";
import { PlanDesk } from "./plan.desk";

export async function loader({ params: { jobId, panelId } }: Route.LoaderArgs) {
  const ctx = await serverContext();
  return loadPlanAhead(await panelOr404(ctx, jobId, panelId), ctx.now_ms());
}
export default function Plan({ loaderData }: Route.ComponentProps) {
  return <PlanDesk loaderData={loaderData} />;
}
