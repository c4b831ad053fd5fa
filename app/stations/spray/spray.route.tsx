import { acting } from "~/kit/form/in-words.server";
import { data } from "react-router";
import { serverContext } from "#server/running";
import { guardedAction } from "~/kit/form/guarded-action";
import { formPrefs } from "~/kit/http/prefs.server";
import { readingAction } from "~/kit/readings/reading-action.server";
import { panelOr404 } from "~/kit/http/panel.server";
import { formOf } from "~/kit/http/body.server";
import type { Route } from "./+types/spray.route";
import { sprayAct } from "./spray.act.server";
import { SprayDesk } from "./spray.desk";

export const action = acting(async ({ request, params: { jobId, panelId } }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const at = { jobId, panelId, look: () => panelOr404(ctx, jobId, panelId) };
  const form = await formOf(request);
  const sender = await formPrefs(request, form);
  const answer = (await readingAction(ctx, at, form, sender)) ?? (await sprayAct(ctx, at, form, sender));
  if (!answer) throw data("Not understood", { status: 400 });
  return answer;
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
export default function Spray() {
  return <SprayDesk />;
}
