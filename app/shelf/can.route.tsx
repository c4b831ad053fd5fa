import { acting } from "~/kit/form/in-words.server";
import { KeptForm } from "~/kit/draft/draft-form";
import { format } from "date-fns";
import { Link, data, redirect } from "react-router";
import { KEEPING, containerAge } from "#core/models/product/container";
import { addContainer, changeContainer } from "#server/commands/shelf";
import { Refusal } from "#server/commands/refusal";
import { serverContext } from "#server/running";
import { type Container, getContainer } from "#server/repos/container-repo";
import { listShelf } from "#server/repos/product-repo";
import { answerForm, textOf, versionIn } from "~/kit/form/answer";
import { canForm } from "./can.form";
import { canShown, canTexts } from "./can.texts";
import { guardedAction } from "~/kit/form/guarded-action";
import { formPrefs } from "~/kit/http/prefs.server";
import { useUnits } from "~/kit/root/use-root";
import { CanTag } from "~/kit/panel/can-tag";
import { Field, FieldErrors, SelectField, OwnInput } from "~/kit/ui/field";
import { PageHeader } from "~/kit/shell/page-header";
import { formOf } from "~/kit/http/body.server";
import type { Route } from "./+types/can.route";

export const meta: Route.MetaFunction = () => [{ title: "Can · Yakamoz" }];

export async function loader({ params: { canId } }: Route.LoaderArgs) {
  const ctx = await serverContext();
  const products = (await listShelf(ctx.db)).map((p) => ({
    id: p.id,
    name: p.sheet.name,
    kind: p.sheet.kind,
    keepsDays: p.sheet.keepsDays,
  }));
  const formKey = ctx.newId();
  const today = format(ctx.now_ms(), "yyyy-MM-dd");
  if (canId === "new") return { can: null, products, formKey, today };
  const can = await getContainer(ctx.db, canId);
  if (!can) throw data("This can is not on the shelf.", { status: 404 });
  const product = products.find((p) => p.id === can.productId);
  const age = containerAge({ ...can, keepsDays: product?.keepsDays ?? null }, ctx.now_ms());
  return {
    can: {
      ...can,
      name: product?.name ?? "unknown product",
      state: age.state,
      words: age.words,
    },
    products,
    formKey,
    today,
  };
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

export default function CanPage({ loaderData: { can, products, formKey, today }, actionData }: Route.ComponentProps) {
  const units = useUnits();
  const errors = actionData?.errors ?? {};
  const texts = can ? canTexts(can, units) : { batch: "", left: "", opened: today, keeping: "shelf" };
  return (
    <>
      <PageHeader title={can ? `Can of ${can.name}` : "New can"} note="What is in the shop, since when, and how it is kept" />
      <main className="max-w-[860px] space-y-6 px-4 py-6 sm:px-6">
        {can && (
          <div className="flex flex-wrap items-center gap-3">
            <CanTag state={can.state} words={can.words} />
            <Link to={`/labels/can/${can.id}`} className="press">
              Print its label
            </Link>
          </div>
        )}
        <KeptForm place="can" version={can ? String(can.version) : undefined} className="grid grid-cols-2 items-start gap-4 sm:grid-cols-4">
          <input type="hidden" name="formKey" value={formKey} />
          {!can && (
            <SelectField className="col-span-2" label="Product" name="productId" errors={errors.productId}>
              {products.map((p) => (
                <option key={p.id} value={p.id}>
                  {p.name} ({p.kind})
                </option>
              ))}
            </SelectField>
          )}
          <Field label="Batch" name="batch" defaultValue={texts.batch} errors={errors.batch} />
          {!can && <Field label="Can holds" unit={units.volume} name="size" errors={errors.size} />}
          <Field label="Left in it" unit={units.volume} name="left" defaultValue={texts.left} errors={errors.left} />
          <Field
            label="Opened on"
            type="date"
            name="opened"
            max={today}
            defaultValue={texts.opened}
            errors={errors.opened}
            hint="empty: not opened"
          />
          <SelectField className="col-span-2" label="Kept" name="keeping" defaultValue={texts.keeping} errors={errors.keeping}>
            {Object.entries(KEEPING).map(([id, k]) => (
              <option key={id} value={id}>
                {k.name} ({k.days} days, common practice)
              </option>
            ))}
          </SelectField>
          {can && (
            <label className="col-span-2 flex min-h-11 items-center gap-3 self-end">
              <OwnInput type="checkbox" name="gone" className="size-6" />
              Used up or thrown away
            </label>
          )}
          <button className="press col-span-2 justify-self-start" data-kind="main">
            {can ? "Save" : "Put it on the shelf"}
          </button>
        </KeptForm>
        <FieldErrors errors={actionData?.ok === false && actionData.message ? [actionData.message] : undefined} />
        <p className="max-w-[70ch] text-[13px] text-ink2">
          Old hardener shows as a clear that will not dry. Close the lid at once, tape it, keep it cold but never frozen. Waste hardener is
          hazardous waste: local rules apply.
        </p>
      </main>
    </>
  );
}
