import { data } from "react-router";
import { setAnew } from "#server/commands/set-anew";
import { serverContext } from "#server/running";
import { loadDial } from "#server/views/dial-view";
import { answerForm, textOf, versionIn } from "~/kit/form/answer";
import { readDial } from "~/kit/form/dial-form";
import { checkedBy } from "~/kit/form/fields";
import { guardedAction } from "~/kit/form/guarded-action";
import { acting } from "~/kit/form/in-words.server";
import { formOf } from "~/kit/http/body.server";
import { panelOr404 } from "~/kit/http/panel.server";
import { formPrefs } from "~/kit/http/prefs.server";
import type { Route } from "./+types/dial.route";
import { DialDesk } from "./dial.desk";

export async function loader({ params: { jobId, panelId } }: Route.LoaderArgs) {
  const ctx = await serverContext();
  return { dial: await loadDial(ctx, await panelOr404(ctx, jobId, panelId)), formKey: ctx.newId() };
}

export const action = acting(async ({ request, params: { jobId, panelId } }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const form = await formOf(request);
  const { units, by: who } = await formPrefs(request, form);
  if (textOf(form, "intent") !== "dial") throw data("Not understood", { status: 400 });
  const view = await panelOr404(ctx, jobId, panelId);
  const dial = await loadDial(ctx, view);
  if (!dial) throw data("No coat comes next here; look again", { status: 409 });
  return answerForm(
    form,
    checkedBy((typed) => readDial(typed, units, dial)),
    async ({ found, by }) => ({
      entryId: await setAnew(ctx, view, {
        ...{ found, by, who },
        clientKey: textOf(form, "formKey") || null,
        expected: versionIn(form),
      }),
      message: "Set so: course and booth view go by it",
    }),
  );
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
export default function Dial({ loaderData }: Route.ComponentProps) {
  return <DialDesk loaderData={loaderData} />;
}
