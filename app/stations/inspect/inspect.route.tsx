import { acting } from "~/kit/form/in-words.server";
import { data } from "react-router";
import { serverContext } from "#server/running";
import { guardedAction } from "~/kit/form/guarded-action";
import { formPrefs } from "~/kit/http/prefs.server";
import { readingAction } from "~/kit/readings/reading-action.server";
import { panelOr404 } from "~/kit/http/panel.server";
import { formOf } from "~/kit/http/body.server";
import type { Route } from "./+types/inspect.route";
import { InspectDesk } from "./inspect.desk";

export const action = acting(async ({ request, params: { jobId, panelId } }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const look = () => panelOr404(ctx, jobId, panelId);
  const form = await formOf(request);
  const { units, by } = await formPrefs(request, form);
  const read = await readingAction(ctx, { panelId, look }, form, { by, units });
  if (read) return read;
  throw data("Not understood", { status: 400 });
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
export default function Inspect() {
  return <InspectDesk />;
}
