import { acting } from "~/kit/form/in-words.server";
import { KeptForm } from "~/kit/draft/draft-form";
import { data, redirect } from "react-router";
import { type AnySheet, type SheetInput, isCoat } from "#core/models/product/sheet";
import { PART_KINDS } from "#core/models/product/kinds";
import { saveProduct } from "#server/commands/jobs";
import { serverContext } from "#server/running";
import { listShelf } from "#server/repos/product-repo";
import { answerForm, textOf, versionIn } from "~/kit/form/answer";
import { partForm } from "./product.form";
import { guardedAction } from "~/kit/form/guarded-action";
import { formPrefs } from "~/kit/http/prefs.server";
import { useUnits } from "~/kit/root/use-root";
import { CommonFields } from "./common-fields";
import { sheetShown, sheetTexts } from "./sheet.texts";
import { Field, FieldErrors, SelectField } from "~/kit/ui/field";
import { PageHeader } from "~/kit/shell/page-header";
import { formOf } from "~/kit/http/body.server";
import type { Route } from "./+types/part.route";

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

export default function PartPage({ loaderData: { item, formKey }, actionData }: Route.ComponentProps) {
  const errors = actionData?.errors ?? {};
  const s = item?.sheet;
  const texts = sheetTexts(s, useUnits());
  return (
    <>
      <PageHeader title={s?.name ?? "New hardener, reducer or additive"} note="What only goes into a mix" />
      <main className="max-w-[960px] px-4 py-6 sm:px-6">
        <KeptForm place="part" version={item?.revisionId} className="grid grid-cols-2 items-start gap-4 sm:grid-cols-4">
          <input type="hidden" name="formKey" value={formKey} />
          <Field className="col-span-2" label="Name" name="name" defaultValue={texts.name} errors={errors.name} />
          <SelectField label="Kind" name="kind" defaultValue={s?.kind ?? "hardener"} errors={errors.kind}>
            {PART_KINDS.map((k) => (
              <option key={k} value={k}>
                {k}
              </option>
            ))}
          </SelectField>
          <SelectField label="Speed" name="speed" defaultValue={s?.speed ?? ""} errors={errors.speed}>
            <option value="">not said</option>
            <option value="fast">fast</option>
            <option value="medium">medium</option>
            <option value="slow">slow</option>
          </SelectField>
          <CommonFields texts={texts} errors={errors} />
          <FieldErrors errors={actionData?.ok === false && actionData.message ? [actionData.message] : undefined} />
          <button className="press col-span-2 justify-self-start" data-kind="main">
            {item ? "Save as a new revision" : "Put it on the shelf"}
          </button>
        </KeptForm>
        <p className="mt-6 max-w-[70ch] text-[13px] text-ink2">
          Hardeners of two-pack clears contain isocyanates: gloves, eye protection and the breathing protection its safety data sheet asks
          for, also while mixing.
        </p>
      </main>
    </>
  );
}
