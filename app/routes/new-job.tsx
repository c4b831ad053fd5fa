import { useState } from "react";
import { Form, Link, redirect, useNavigation } from "react-router";
import { FINISHES, HOUSE_WAYS, houseWay } from "#core/ways/house-ways";
import { createJob } from "#server/commands/jobs";
import { serverContext } from "#server/context";
import { listClears } from "#server/repos/product-repo";
import { getShop } from "#server/repos/shop-repo";
import { answerForm } from "~/forms/answer";
import { jobForm } from "~/forms/job-form";
import { guardedAction } from "~/lib/guarded-action";
import { formPrefs } from "~/lib/prefs.server";
import { PanelFields } from "~/panel/panel-fields";
import { Choices } from "~/ui/choice";
import { Field, FieldErrors, SelectField } from "~/ui/field";
import { PageHeader } from "~/ui/page-header";
import { UnitsField } from "~/ui/units-field";
import type { Route } from "./+types/new-job";

export const meta: Route.MetaFunction = () => [{ title: "New job · Yakamoz" }];

export async function loader() {
  const ctx = await serverContext();
  const [shop, products] = await Promise.all([getShop(ctx.db), listClears(ctx.db)]);
  return {
    wayId: shop.wayId,
    formKey: ctx.newId(),
    products: products.map((p) => ({ revisionId: p.revisionId, name: p.sheet.name, coats: p.sheet.coats })),
  };
}

export async function action({ request }: Route.ActionArgs) {
  const ctx = await serverContext();
  const form = await request.formData();
  const { units } = await formPrefs(request, form);
  const made = { jobId: "", panelId: "" };
  const answer = await answerForm(form, jobForm(units), async (job) => {
    Object.assign(made, await createJob(ctx, job));
  });
  return made.jobId ? redirect(`/jobs/${made.jobId}/panels/${made.panelId}/plan`) : answer;
}

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);

export default function NewJob({ loaderData: { wayId: shopWay, formKey, products }, actionData }: Route.ComponentProps) {
  const [wayId, setWayId] = useState<string>(shopWay);
  const [finish, setFinish] = useState<string>(houseWay(shopWay).finish);
  const busy = useNavigation().state === "submitting";
  const errors = actionData?.errors ?? {};
  return (
    <>
      <PageHeader title="New job" note="From a house way; everything can be changed later" />
      <main className="max-w-[1080px] px-4 py-6 sm:px-6">
        {products.length === 0 && (
          <p className="mb-5 rounded-press border border-edge p-4">
            The shelf is empty.{" "}
            <Link className="font-semibold underline underline-offset-4" to="/shelf/new">
              Put a clear on the shelf
            </Link>{" "}
            first: its sheet gives solids, flash and film.
          </p>
        )}
        <Form method="post" className="space-y-8" noValidate>
          <UnitsField />
          <input type="hidden" name="formKey" value={formKey} />
          <section className="grid gap-4 sm:grid-cols-[2fr_1.4fr_auto]">
            <Field label="Vehicle or part" name="vehicle" errors={errors.vehicle} />
            <Field label="Colour" name="colourName" errors={errors.colourName} />
            <div>
              <label htmlFor="colourCss" className="small-label mb-1 block">
                Shown as
              </label>
              <input
                id="colourCss"
                name="colourCss"
                type="color"
                defaultValue="#1d5560"
                className="h-11 w-20 cursor-pointer rounded-press border border-edge"
              />
            </div>
          </section>
          <section>
            <h2 className="mb-3 text-xl font-semibold">House way</h2>
            <Choices
              label="House way"
              name="wayId"
              columns={3}
              value={wayId}
              onChange={(id) => {
                setWayId(id);
                setFinish(houseWay(id).finish);
              }}
              options={HOUSE_WAYS.map((w) => ({ value: w.id, name: w.name, note: `${w.goodFor}. ${w.price}.` }))}
            />
            <FieldErrors errors={errors.wayId} />
            <SelectField
              className="mt-4 max-w-80"
              label="Finish wanted"
              name="finish"
              value={finish}
              onChange={(e) => setFinish(e.target.value)}
              errors={errors.finish}
            >
              {Object.entries(FINISHES).map(([k, name]) => (
                <option key={k} value={k}>
                  {name}
                </option>
              ))}
            </SelectField>
          </section>
          <section>
            <h2 className="mb-3 text-xl font-semibold">First panel</h2>
            <PanelFields errors={errors} products={products} coats={houseWay(wayId).coats.length} />
          </section>
          <FieldErrors errors={actionData?.message ? [actionData.message] : undefined} />
          <button className="press" data-kind="main" disabled={busy || products.length === 0}>
            {busy ? "Starting…" : "Start this job"}
          </button>
        </Form>
      </main>
    </>
  );
}
