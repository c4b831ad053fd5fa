import { acting } from "~/kit/form/in-words.server";
import { data, redirect } from "react-router";
import { type AnySheet, type SheetInput, isCoat } from "#core/models/product/sheet";
import { saveProduct } from "#server/commands/jobs";
import { serverContext } from "#server/running";
import { listShelf } from "#server/repos/product-repo";
import { answerForm, textOf, versionIn } from "~/kit/form/answer";
import { partForm } from "./product.form";
import { guardedAction } from "~/kit/form/guarded-action";
import { formPrefs } from "~/kit/http/prefs.server";
import { sheetShown } from "./sheet.texts";
import { formOf } from "~/kit/http/body.server";
import type { Route } from "./+types/part.route";
import { PartPageDesk } from "./part.desk";

export const meta: Route.MetaFunction = () => [{ title: "Hardener or reducer · Yakamoz" }];

export async function loader({ params: { productId } }: Route.LoaderArgs) {
  const ctx = await serverContext();
  const formKey = ctx.newId();
  if (productId === "new") return { item: null, formKey };
  const item = (await listShelf(ctx.db)).find((p) => p.id === productId);
  if (!item || isCoat(item.sheet)) throw data("This is not on the shelf.", { status: 404 });
  return { item: { ...item, sheet: item.sheet }, formKey };
}

export const action = acting(async ({ request, params: { productId } }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const form = await formOf(request);
  const { units } = await formPrefs(request, form);
  const saved = { yes: false };
  const answer = await answerForm(
    form,
    partForm(units),
    async (sheet: SheetInput) => {
      await saveProduct(ctx, sheet, productId === "new" ? null : productId, textOf(form, "formKey") || null, versionIn(form));
      saved.yes = true;
    },
    (there: AnySheet) => sheetShown(there, units),
  );
  return saved.yes ? redirect("/shelf") : answer;
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
export default function PartPage({ loaderData, actionData }: Route.ComponentProps) {
  return <PartPageDesk loaderData={loaderData} actionData={actionData} />;
}
