import { acting } from "~/kit/form/in-words.server";
import { data, redirect } from "react-router";
import { type AnySheet, type SheetInput, isCoat } from "#core/models/product/sheet";
import { saveProduct } from "#server/commands/jobs";
import { serverContext } from "#server/running";
import { listShelf } from "#server/repos/product-repo";
import { answerForm, textOf, versionIn } from "~/kit/form/answer";
import { productForm } from "./product.form";
import { sheetShown } from "./sheet.texts";
import { guardedAction } from "~/kit/form/guarded-action";
import { formPrefs } from "~/kit/http/prefs.server";
import { formOf } from "~/kit/http/body.server";
import type { Route } from "./+types/product.route";
import { ProductPageDesk } from "./product.desk";

export const meta: Route.MetaFunction = () => [{ title: "Product · Yakamoz" }];

export async function loader({ params: { productId } }: Route.LoaderArgs) {
  const ctx = await serverContext();
  const formKey = ctx.newId();
  const shelf = await listShelf(ctx.db);
  const parts = shelf.filter((p) => !isCoat(p.sheet)).map((p) => p.sheet.name);
  /** What a matte clear may be blended with: another clear, or an agent. */
  const partners = shelf.filter((p) => p.sheet.kind === "clear" || p.sheet.kind === "matting agent").map((p) => p.sheet.name);
  if (productId === "new") return { product: null, formKey, parts, partners };
  const item = shelf.find((p) => p.id === productId);
  if (!item) throw data("This product is not on the shelf.", { status: 404 });
  const { sheet } = item;
  if (!isCoat(sheet)) throw redirect(`/shelf/parts/${productId}`);
  return { product: { ...item, sheet }, formKey, parts, partners };
}

/** Pages that ask for a first clear: its sheet, once stored, leads back to them. */
const BACK: Record<string, string> = { floor: "/", job: "/jobs/new" };

export const action = acting(async ({ request, params: { productId } }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const form = await formOf(request);
  const { units } = await formPrefs(request, form);
  const saved = { yes: false };
  const answer = await answerForm(
    form,
    productForm(units),
    async (sheet: SheetInput) => {
      await saveProduct(ctx, sheet, productId === "new" ? null : productId, textOf(form, "formKey") || null, versionIn(form));
      saved.yes = true;
    },
    (there: AnySheet) => sheetShown(there, units),
  );
  return saved.yes ? redirect(BACK[new URL(request.url).searchParams.get("for") ?? ""] ?? "/shelf") : answer;
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
export default function ProductPage({ loaderData, actionData }: Route.ComponentProps) {
  return <ProductPageDesk loaderData={loaderData} actionData={actionData} />;
}
