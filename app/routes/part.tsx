import { Form, data, redirect } from "react-router";
import { PART_KINDS, type SheetInput, isCoat } from "#core/product/sheet";
import { saveProduct } from "#server/commands/jobs";
import { serverContext } from "#server/context";
import { listShelf } from "#server/repos/product-repo";
import { answerForm } from "~/forms/answer";
import { partForm } from "~/forms/product-form";
import { guardedAction } from "~/lib/guarded-action";
import { formPrefs } from "~/lib/prefs.server";
import { useUnits } from "~/lib/use-root";
import { CommonFields } from "~/shelf/common-fields";
import { Field, SelectField } from "~/ui/field";
import { PageHeader } from "~/ui/page-header";
import { UnitsField } from "~/ui/units-field";
import type { Route } from "./+types/part";

export const meta: Route.MetaFunction = () => [{ title: "Hardener or reducer · Yakamoz" }];

export async function loader({ params: { productId } }: Route.LoaderArgs) {
  if (productId === "new") return { item: null };
  const { db } = await serverContext();
  const item = (await listShelf(db)).find((p) => p.id === productId);
  if (!item || isCoat(item.sheet)) throw data("This is not on the shelf.", { status: 404 });
  return { item: { ...item, sheet: item.sheet } };
}

export async function action({ request, params: { productId } }: Route.ActionArgs) {
  const ctx = await serverContext();
  const form = await request.formData();
  const { units } = await formPrefs(request, form);
  const saved = { yes: false };
  const answer = await answerForm(form, partForm(units), async (sheet: SheetInput) => {
    await saveProduct(ctx, sheet, productId === "new" ? null : productId);
    saved.yes = true;
  });
  return saved.yes ? redirect("/shelf") : answer;
}

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);

export default function PartPage({ loaderData: { item }, actionData }: Route.ComponentProps) {
  const units = useUnits();
  const errors = actionData?.errors ?? {};
  const s = item?.sheet;
  return (
    <>
      <PageHeader title={s?.name ?? "New hardener, reducer or additive"} note="What only goes into a mix" />
      <main className="max-w-[960px] px-4 py-6 sm:px-6">
        <Form method="post" noValidate className="grid grid-cols-2 items-start gap-4 sm:grid-cols-4" key={units.film + units.temperature}>
          <UnitsField />
          <Field className="col-span-2" label="Name" name="name" defaultValue={s?.name} errors={errors.name} />
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
          <CommonFields sheet={s} errors={errors} />
          <button className="press col-span-2 justify-self-start" data-kind="main">
            {item ? "Save as a new revision" : "Put it on the shelf"}
          </button>
        </Form>
        <p className="mt-6 max-w-[70ch] text-[13px] text-ink2">
          Hardeners of two-pack clears contain isocyanates: gloves, eye protection and the breathing protection its safety data sheet asks
          for, also while mixing.
        </p>
      </main>
    </>
  );
}
