import { acting } from "~/kit/form/in-words.server";
import { data } from "react-router";
import { serverContext } from "#server/running";
import { DefectsDesk } from "./defects.desk";
import { guardedAction } from "~/kit/form/guarded-action";
import { formPrefs } from "~/kit/http/prefs.server";
import { InspectTabs } from "./tabs";
import { panelOr404 } from "~/kit/http/panel.server";
import { formOf } from "~/kit/http/body.server";
import type { Route } from "./+types/defects.route";
import { usePanel } from "~/kit/panel/use-panel";
import { marksAct } from "./marks.act.server";

export const action = acting(async ({ request, params: { jobId, panelId } }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const form = await formOf(request);
  const at = { jobId, panelId, look: () => panelOr404(ctx, jobId, panelId) };
  const answer = await marksAct(ctx, at, form, await formPrefs(request, form));
  if (!answer) throw data("Not understood", { status: 400 });
  return answer;
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);

export default function DefectsPage() {
  const { base } = usePanel();
  return (
    <>
      <InspectTabs base={base} />
      <DefectsDesk />
    </>
  );
}
