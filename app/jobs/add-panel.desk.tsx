import { useUnits } from "~/kit/root/use-root";
import { DraftForm } from "~/kit/draft/draft-form";
import { useDraft } from "~/kit/draft/use-draft";
import { PANEL_QUANTITIES, PanelFields, panelStart, productFor } from "./panel-fields";
import { FieldErrors } from "~/kit/ui/field";
import { PageHeader } from "~/kit/shell/page-header";
import type { Route } from "./+types/add-panel.route";

export function AddPanelDesk({
  loaderData: { job, products, lastRevisionId, formKey },
  actionData,
}: Pick<Route.ComponentProps, "loaderData" | "actionData">) {
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
          <PanelFields draft={draft} errors={actionData?.errors ?? {}} products={products} several />
          <FieldErrors errors={actionData?.message ? [actionData.message] : undefined} />
          <button className="press" data-kind="main">
            Add this panel
          </button>
        </DraftForm>
      </main>
    </>
  );
}
