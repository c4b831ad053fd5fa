import { acting } from "~/kit/form/in-words.server";
import { useUnits } from "~/kit/root/use-root";
import { DraftForm } from "~/kit/draft/draft-form";
import { useDraft } from "~/kit/draft/use-draft";
import { Link, redirect, useNavigation } from "react-router";
import { FINISHES } from "#core/models/ways/way";
import { createJob } from "#server/commands/jobs";
import { serverContext } from "#server/running";
import { listClears } from "#server/repos/product-repo";
import { getShop } from "#server/repos/shop-repo";
import { listWays } from "#server/repos/way-repo";
import { answerForm } from "~/kit/form/answer";
import { jobForm } from "./job.form";
import { guardedAction } from "~/kit/form/guarded-action";
import { formPrefs } from "~/kit/http/prefs.server";
import { PANEL_QUANTITIES, PanelFields, panelStart, productFor, productChoice } from "./panel-fields";
import { Field, FieldErrors, SelectField } from "~/kit/ui/field";
import { NO_BRIEF } from "#core/panel/job-brief";
import { BriefFields, briefStart } from "./brief-fields";
import { PageHeader } from "~/kit/shell/page-header";
import { WayChoice } from "~/kit/ways/way-choice";
import { formOf } from "~/kit/http/body.server";
import type { Route } from "./+types/new-job.route";

export const meta: Route.MetaFunction = () => [{ title: "New job · Yakamoz" }];

export async function loader() {
  const ctx = await serverContext();
  const [shop, products, ways] = await Promise.all([getShop(ctx.db), listClears(ctx.db), listWays(ctx.db)]);
  return {
    ways,
    usual: ways.find((w) => w.id === shop.wayId) ?? ways[0]!,
    formKey: ctx.newId(),
    products: products.map(productChoice),
  };
}

export const action = acting(async ({ request }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const form = await formOf(request);
  const { units } = await formPrefs(request, form);
  const made = { jobId: "", panelId: "" };
  const answer = await answerForm(form, jobForm(units), async (job) => {
    Object.assign(made, await createJob(ctx, job));
  });
  return made.jobId ? redirect(`/jobs/${made.jobId}/panels/${made.panelId}/course`) : answer;
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);

export default function NewJob({ loaderData: { ways, usual, formKey, products }, actionData }: Route.ComponentProps) {
  const units = useUnits();
  const draft = useDraft(
    "job",
    {
      vehicle: "",
      colourName: "",
      colourCss: "#1d5560",
      wayId: usual.id,
      finish: usual.finish,
      ...panelStart(units, products, usual.coats.length),
      productRevisionId: productFor(products, usual.finish),
      ...briefStart(NO_BRIEF),
    },
    PANEL_QUANTITIES,
  );
  const { typed } = draft;
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
        <DraftForm draft={draft} className="space-y-8">
          <input type="hidden" name="formKey" value={formKey} />
          <section className="grid gap-4 sm:grid-cols-[2fr_1.4fr_auto]">
            <Field label="Vehicle or part" {...draft.field("vehicle")} errors={errors.vehicle} />
            <Field label="Colour" {...draft.field("colourName")} errors={errors.colourName} />
            <div>
              <label htmlFor="colourCss" className="small-label mb-1 block">
                Shown as
              </label>
              <input
                id="colourCss"
                {...draft.field("colourCss")}
                type="color"
                className="h-11 w-20 cursor-pointer rounded-press border border-edge"
              />
            </div>
          </section>
          <section>
            <h2 className="mb-3 text-xl font-semibold">House way</h2>
            <WayChoice
              ways={ways}
              name="wayId"
              value={typed.wayId}
              onChange={(id) => {
                const way = ways.find((w) => w.id === id);
                if (!way) return;
                draft.set("wayId", id);
                draft.set("finish", way.finish);
                draft.set("coatsPlanned", String(way.coats.length));
                const now = products.find((p) => p.revisionId === typed.productRevisionId);
                if (now?.matte !== (way.finish === "matte")) draft.set("productRevisionId", productFor(products, way.finish));
              }}
            />
            <FieldErrors errors={errors.wayId} />
            <SelectField className="mt-4 max-w-80" label="Finish wanted" {...draft.field("finish")} errors={errors.finish}>
              {Object.entries(FINISHES).map(([k, name]) => (
                <option key={k} value={k}>
                  {name}
                </option>
              ))}
            </SelectField>
            <div className="mt-4 space-y-3">
              <BriefFields draft={draft} errors={errors} />
            </div>
          </section>
          <section>
            <h2 className="mb-3 text-xl font-semibold">First panel</h2>
            <PanelFields draft={draft} errors={errors} products={products} />
          </section>
          <FieldErrors errors={actionData?.message ? [actionData.message] : undefined} />
          <button className="press" data-kind="main" disabled={busy || products.length === 0}>
            {busy ? "Starting…" : "Start this job"}
          </button>
        </DraftForm>
      </main>
    </>
  );
}
