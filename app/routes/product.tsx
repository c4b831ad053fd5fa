import { Form, data, redirect } from "react-router";
import { saveProduct } from "#server/commands/jobs";
import { serverContext } from "#server/context";
import { listProducts } from "#server/repos/product-repo";
import type { ProductSheet } from "#core/product/sheet";
import { answerForm } from "~/forms/answer";
import { initial } from "~/forms/initial";
import { productForm } from "~/forms/product-form";
import { guardedAction } from "~/lib/guarded-action";
import { formPrefs } from "~/lib/prefs.server";
import { useUnits } from "~/lib/use-root";
import { Field, SelectField } from "~/ui/field";
import { PageHeader } from "~/ui/page-header";
import { UnitsField } from "~/ui/units-field";
import type { Route } from "./+types/product";

export const meta: Route.MetaFunction = () => [{ title: "Product · Yakamoz" }];

export async function loader({ params: { productId } }: Route.LoaderArgs) {
  if (productId === "new") return { product: null };
  const { db } = await serverContext();
  const product = (await listProducts(db)).find((p) => p.id === productId);
  if (!product) throw data("This product is not on the shelf.", { status: 404 });
  return { product };
}

export async function action({ request, params: { productId } }: Route.ActionArgs) {
  const ctx = await serverContext();
  const form = await request.formData();
  const { units } = await formPrefs(request, form);
  const saved = { yes: false };
  const answer = await answerForm(form, productForm(units), async (sheet: ProductSheet) => {
    await saveProduct(ctx, sheet, productId === "new" ? null : productId);
    saved.yes = true;
  });
  return saved.yes ? redirect("/shelf") : answer;
}

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);

export default function ProductPage({ loaderData: { product }, actionData }: Route.ComponentProps) {
  const units = useUnits();
  const errors = actionData?.errors ?? {};
  const s = product?.sheet;
  return (
    <>
      <PageHeader
        title={s?.name ?? "New product"}
        note={
          product ? `Revision ${product.revision}; jobs keep the revision they were planned with` : "Type the figures of its data sheet"
        }
      />
      <main className="max-w-[860px] px-4 py-6 sm:px-6">
        <Form method="post" noValidate className="grid grid-cols-2 gap-x-4 gap-y-4 sm:grid-cols-4" key={units.film + units.temperature}>
          <UnitsField />
          <Field className="col-span-2" label="Name" name="name" defaultValue={s?.name} errors={errors.name} />
          <SelectField label="Kind" name="kind" defaultValue={s?.kind ?? "clear"} errors={errors.kind}>
            <option value="clear">Clear</option>
            <option value="matte clear">Matte clear</option>
          </SelectField>
          <Field label="Ratio by volume" name="ratio" placeholder="2:1" defaultValue={s?.ratio} errors={errors.ratio} />
          <Field
            label="Solids by volume, mixed"
            unit="%"
            name="solids"
            defaultValue={initial("share", s?.volumeSolids, units)}
            errors={errors.solids}
          />
          <SelectField label="Hardener speed" name="speed" defaultValue={s?.speed ?? "medium"} errors={errors.speed}>
            <option value="fast">fast</option>
            <option value="medium">medium</option>
            <option value="slow">slow</option>
          </SelectField>
          <Field label="Coats" name="coats" inputMode="numeric" defaultValue={s?.coats ?? 2} errors={errors.coats} />
          <Field
            label="Floor by the sheet"
            unit={units.film}
            name="floor"
            defaultValue={initial("film", s?.floor_m, units)}
            errors={errors.floor}
            hint="empty: the house's own"
          />
          <Field
            label="Film a coat, least"
            unit={units.film}
            name="filmMin"
            defaultValue={initial("film", s?.filmPerCoatMin_m, units)}
            errors={errors.filmMin}
          />
          <Field
            label="Film a coat, most"
            unit={units.film}
            name="filmMax"
            defaultValue={initial("film", s?.filmPerCoatMax_m, units)}
            errors={errors.filmMax}
          />
          <Field
            label="Flash, least"
            unit="min"
            name="flashMin"
            defaultValue={initial("duration", s?.flashMin_s, units)}
            errors={errors.flashMin}
          />
          <Field
            label="Flash, most"
            unit="min"
            name="flashMax"
            defaultValue={initial("duration", s?.flashMax_s, units)}
            errors={errors.flashMax}
          />
          <Field
            label="Pot life"
            unit="min"
            name="potLife"
            defaultValue={initial("duration", s?.potLife_s, units)}
            errors={errors.potLife}
          />
          <Field
            label="Sand after, at 20 °C"
            unit="min"
            name="sandAfter"
            defaultValue={initial("duration", s?.sandAfter_s, units)}
            errors={errors.sandAfter}
          />
          <button className="press col-span-2 self-end" data-kind="main">
            {product ? "Save as a new revision" : "Put it on the shelf"}
          </button>
        </Form>
        <p className="mt-6 max-w-[70ch] text-[13px] text-ink2">
          The sheet in your hand goes first; nothing is built in. The safety data sheet, emission limits and waste rules of your place
          apply.
        </p>
      </main>
    </>
  );
}
