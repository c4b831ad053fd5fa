import { acting } from "~/kit/form/in-words.server";
import { format } from "date-fns";
import { data, redirect } from "react-router";
import { addContainer, changeContainer } from "#server/commands/shelf";
import { Refusal } from "#server/commands/refusal";
import { serverContext } from "#server/running";
import type { Container } from "#server/repos/container-repo";
import { loadCanPage } from "#server/views/cans-view";
import { answerForm, textOf, versionIn } from "~/kit/form/answer";
import { canForm } from "./can.form";
import { canShown } from "./can.texts";
import { guardedAction } from "~/kit/form/guarded-action";
import { formPrefs } from "~/kit/http/prefs.server";
import { formOf } from "~/kit/http/body.server";
import type { Route } from "./+types/can.route";
import { CanPageDesk } from "./can.desk";

export const meta: Route.MetaFunction = () => [{ title: "Can · Yakamoz" }];

export async function loader({ params: { canId } }: Route.LoaderArgs) {
  const ctx = await serverContext();
  const page = await loadCanPage(ctx, canId === "new" ? null : canId);
  if (!page) throw data("This can is not on the shelf.", { status: 404 });
  return { ...page, formKey: ctx.newId(), today: format(ctx.now_ms(), "yyyy-MM-dd") };
}

export const action = acting(async ({ request, params: { canId } }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const form = await formOf(request);
  const { units } = await formPrefs(request, form);
  const saved = { yes: false };
  const answer = await answerForm(
    form,
    canForm(units),
    async (v) => {
      const common = { batch: v.batch, left_m3: v.left, opened_ms: v.opened, keeping: v.keeping };
      if (canId === "new") {
        if (v.size === null) throw new Refusal("size", "Type a number");
        await addContainer(ctx, { ...common, productId: v.productId, size_m3: v.size, clientKey: textOf(form, "formKey") || null });
      } else await changeContainer(ctx, { ...common, id: canId, version: versionIn(form), gone: v.gone === "on" });
      saved.yes = true;
    },
    (there: Container) => canShown(there, units),
  );
  return saved.yes ? redirect("/shelf") : answer;
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
export default function CanPage({ loaderData, actionData }: Route.ComponentProps) {
  return <CanPageDesk loaderData={loaderData} actionData={actionData} />;
}
