import { acting } from "~/kit/form/in-words.server";
import { useUnits } from "~/kit/root/use-root";
import { DraftForm } from "~/kit/draft/draft-form";
import { useDraft } from "~/kit/draft/use-draft";
import { data, redirect } from "react-router";
import { addPanel } from "#server/commands/jobs";
import { serverContext } from "#server/running";
import { getJob } from "#server/repos/job-repo";
import { listPanels } from "#server/repos/panel-repo";
import { listClears } from "#server/repos/product-repo";
import { answerForm } from "~/kit/form/answer";
import { panelForm } from "./job.form";
import { guardedAction } from "~/kit/form/guarded-action";
import { formPrefs } from "~/kit/http/prefs.server";
import { PANEL_QUANTITIES, PanelFields, panelStart, productChoice, productFor } from "./panel-fields";
import { FieldErrors } from "~/kit/ui/field";
import { PageHeader } from "~/kit/shell/page-header";
import { formOf } from "~/kit/http/body.server";
import type { Route } from "./+types/add-panel.route";

export const meta: Route.MetaFunction = () => [{ title: "Add a panel · Yakamoz" }];

export async function loader({ params }: Route.LoaderArgs) {
  const ctx = await serverContext();
  const [job, panels, products] = await Promise.all([getJob(ctx.db, params.jobId), listPanels(ctx.db, params.jobId), listClears(ctx.db)]);
  if (!job) throw data("This job is not in the file.", { status: 404 });
  return {
    job,
    formKey: ctx.newId(),
    products: products.map(productChoice),
    /** As the panel before it. */
    lastRevisionId: panels.at(-1)?.productRevisionId ?? null,
  };
}

export const action = acting(async ({ request, params }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const form = await formOf(request);
  const { units } = await formPrefs(request, form);
  const made = { panelId: "" };
  const answer = await answerForm(form, panelForm(units), async ({ panel, formKey }) => {
    made.panelId = await addPanel(ctx, params.jobId, panel, formKey);
  });
  return made.panelId ? redirect(`/jobs/${params.jobId}/panels/${made.panelId}/course`) : answer;
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);

export default function AddPanel({ loaderData: { job, products, lastRevisionId, formKey }, actionData }: Route.ComponentProps) {
  const same = products.find((p) => p.revisionId === lastRevisionId)?.revisionId;
  const draft = useDraft(
    "panel",
    {
      ...panelStart(useUnits(), products, job.way.coats.length),
      productRevisionId: same ?? productFor(products, job.finish),
    },
    PANEL_QUANTITIES,
  );
  return (
    <>
      <PageHeader title={`${job.vehicle}: add a panel`} note={job.colourName} />
      <main className="max-w-[1080px] px-4 py-6 sm:px-6">
        <DraftForm draft={draft} className="space-y-6">
          <input type="hidden" name="formKey" value={formKey} />
          <PanelFields draft={draft} errors={actionData?.errors ?? {}} products={products} />
          <FieldErrors errors={actionData?.message ? [actionData.message] : undefined} />
          <button className="press" data-kind="main">
            Add this panel
          </button>
        </DraftForm>
      </main>
    </>
  );
}
