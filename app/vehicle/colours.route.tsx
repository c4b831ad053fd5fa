import { data } from "react-router";
import { setColours } from "#server/commands/colours";
import { serverContext } from "#server/running";
import { loadColours } from "#server/views/vehicle-view";
import { answerForm, textOf, versionIn } from "~/kit/form/answer";
import { guardedAction } from "~/kit/form/guarded-action";
import { acting } from "~/kit/form/in-words.server";
import { formOf } from "~/kit/http/body.server";
import { formPrefs } from "~/kit/http/prefs.server";
import type { Route } from "./+types/colours.route";
import { ColoursDesk } from "./colours.desk";
import { coloursForm } from "./colours.form";

export const meta: Route.MetaFunction = () => [{ title: "Colours and joints · Yakamoz" }];

export async function loader({ params: { jobId } }: Route.LoaderArgs) {
  const view = await loadColours(await serverContext(), jobId);
  if (!view) throw data("This job is not in the file.", { status: 404 });
  return view;
}

export const action = acting(async ({ request, params: { jobId } }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const form = await formOf(request);
  if (textOf(form, "intent") !== "colours") throw data("Not understood", { status: 400 });
  const { by } = await formPrefs(request, form);
  return answerForm(form, coloursForm, async (v) => {
    await setColours(ctx, { ...v, jobId, by, expected: versionIn(form) });
    return { message: "Colours kept" };
  });
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
export default function Colours({ loaderData }: Route.ComponentProps) {
  return <ColoursDesk view={loaderData} />;
}
