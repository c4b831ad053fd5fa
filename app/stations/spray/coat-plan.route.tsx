import { acting } from "~/kit/form/in-words.server";
import { data } from "react-router";
import { z } from "zod";
import { setHouseWay, wayVersion } from "#server/commands/jobs";
import { listWays } from "#server/repos/way-repo";
import { loadRunCalibration } from "#server/views/calibration-view";
import { serverContext } from "#server/running";
import { wayPlan } from "./coat-plan-at";
import { answerForm, versionIn } from "~/kit/form/answer";
import { guardedAction } from "~/kit/form/guarded-action";
import { panelOr404 } from "~/kit/http/panel.server";
import { formOf } from "~/kit/http/body.server";
import type { Route } from "./+types/coat-plan.route";
import { CoatPlanPageDesk } from "./coat-plan.desk";

export async function loader({ params: { jobId, panelId } }: Route.LoaderArgs) {
  const ctx = await serverContext();
  const [view, ways, calibration] = await Promise.all([panelOr404(ctx, jobId, panelId), listWays(ctx.db), loadRunCalibration(ctx)]);
  return { plan: wayPlan(view, view.job.way, ctx.now_ms()), ways, calibration, version: wayVersion(view.job) };
}

export const action = acting(async ({ request, params: { jobId, panelId } }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const form = await formOf(request);
  if (form.get("intent") !== "way") throw data("Not understood", { status: 400 });
  return answerForm(form, z.object({ wayId: z.string().min(1).max(80) }), async ({ wayId }) => {
    const way = await setHouseWay(ctx, { jobId, panelId, wayId, expected: versionIn(form) });
    return { message: `This job is now sprayed ${way.name.toLowerCase()}` };
  });
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
export default function CoatPlanPage({ loaderData }: Route.ComponentProps) {
  return <CoatPlanPageDesk loaderData={loaderData} />;
}
