import { acting } from "~/kit/form/in-words.server";
import { data } from "react-router";
import { startCoat, stopCoat } from "#server/commands/booth";
import { serverContext } from "#server/running";
import { loadBooth } from "#server/views/booth-view";
import { answerForm, textOf } from "~/kit/form/answer";
import { boothForm } from "./booth.form";
import { sprayAct } from "~/stations/spray/spray.act.server";
import { panelOr404 } from "~/kit/http/panel.server";
import { guardedAction } from "~/kit/form/guarded-action";
import { formPrefs } from "~/kit/http/prefs.server";
import { answeredAs } from "#server/commands/answered-as";
import { againstNow } from "#server/views/against-view";
import { loadPanelView } from "#server/views/panel-view";
import { doneAgainst } from "~/kit/words/hold-name";
import { formOf } from "~/kit/http/body.server";
import type { Route } from "./+types/booth.route";
import { BoothDesk } from "./booth.desk";

export const meta: Route.MetaFunction = () => [{ title: "Booth view · Yakamoz" }];

export async function loader({ params: { jobId } }: Route.LoaderArgs) {
  const booth = await loadBooth(await serverContext(), jobId);
  if (!booth) throw data("This job is not in the file.", { status: 404 });
  return { ...booth, jobId };
}

export const action = acting(async ({ request, params: { jobId } }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const form = await formOf(request);
  const { by, units } = await formPrefs(request, form);
  const at = (panelId: string) => ({ jobId, panelId, look: () => panelOr404(ctx, jobId, panelId) });
  if (textOf(form, "intent") === "comb") return sprayAct(ctx, at(textOf(form, "panelId")), form, { by, units });
  return answerForm(form, boothForm, async ({ intent, formKey, ...v }) => {
    const clientKey = `${formKey}-${v.panelId}-${v.number}-${intent}`;
    const view = intent === "start" ? await loadPanelView(ctx, jobId, v.panelId) : null;
    const against = view ? againstNow(view, "coat", ctx.now_ms()) : [];
    const said =
      intent === "start" ? doneAgainst(`Coat ${v.number} started`, against, ctx.now_ms()) : `Coat ${v.number} logged; its flash runs`;
    const entryId = await (intent === "start" ? startCoat : stopCoat)(ctx, { ...v, jobId, by, clientKey, said });
    return { entryId, message: await answeredAs(ctx, clientKey, said) };
  });
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
export default function Booth({ loaderData }: Route.ComponentProps) {
  return <BoothDesk loaderData={loaderData} />;
}
