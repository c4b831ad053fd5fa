import { Form, data, redirect } from "react-router";
import { houseWay } from "#core/ways/house-ways";
import { addPanel } from "#server/commands/jobs";
import { serverContext } from "#server/context";
import { getJob } from "#server/repos/job-repo";
import { listClears } from "#server/repos/product-repo";
import { answerForm } from "~/forms/answer";
import { panelForm } from "~/forms/job-form";
import { guardedAction } from "~/lib/guarded-action";
import { formPrefs } from "~/lib/prefs.server";
import { PanelFields } from "~/panel/panel-fields";
import { FieldErrors } from "~/ui/field";
import { PageHeader } from "~/ui/page-header";
import { UnitsField } from "~/ui/units-field";
import type { Route } from "./+types/add-panel";

export const meta: Route.MetaFunction = () => [{ title: "Add a panel · Yakamoz" }];

export async function loader({ params }: Route.LoaderArgs) {
  const ctx = await serverContext();
  const [job, products] = await Promise.all([getJob(ctx.db, params.jobId), listClears(ctx.db)]);
  if (!job) throw data("This job is not in the file.", { status: 404 });
  return {
    job,
    formKey: ctx.newId(),
    products: products.map((p) => ({ revisionId: p.revisionId, name: p.sheet.name, coats: p.sheet.coats })),
  };
}

export async function action({ request, params }: Route.ActionArgs) {
  const ctx = await serverContext();
  const form = await request.formData();
  const { units } = await formPrefs(request, form);
  const made = { panelId: "" };
  const answer = await answerForm(form, panelForm(units), async ({ panel, formKey }) => {
    made.panelId = await addPanel(ctx, params.jobId, panel, formKey);
  });
  return made.panelId ? redirect(`/jobs/${params.jobId}/panels/${made.panelId}/plan`) : answer;
}

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);

export default function AddPanel({ loaderData: { job, products, formKey }, actionData }: Route.ComponentProps) {
  return (
    <>
      <PageHeader title={`${job.vehicle}: add a panel`} note={job.colourName} />
      <main className="max-w-[1080px] px-4 py-6 sm:px-6">
        <Form method="post" className="space-y-6" noValidate>
          <UnitsField />
          <input type="hidden" name="formKey" value={formKey} />
          <PanelFields errors={actionData?.errors ?? {}} products={products} coats={houseWay(job.wayId).coats.length} />
          <FieldErrors errors={actionData?.message ? [actionData.message] : undefined} />
          <button className="press" data-kind="main">
            Add this panel
          </button>
        </Form>
      </main>
    </>
  );
}
