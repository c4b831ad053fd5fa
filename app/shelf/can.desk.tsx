import { KeptForm } from "~/kit/draft/draft-form";
import { Link } from "react-router";
import { KEEPING } from "#core/models/product/container";
import { canTexts } from "./can.texts";
import { useUnits } from "~/kit/root/use-root";
import { CanTag } from "~/kit/panel/can-tag";
import { Field, FieldErrors, SelectField, OwnInput } from "~/kit/ui/field";
import { PageHeader } from "~/kit/shell/page-header";
import type { Route } from "./+types/can.route";

export function CanPageDesk({
  loaderData: { can, products, formKey, today },
  actionData,
}: Pick<Route.ComponentProps, "loaderData" | "actionData">) {
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
