import { data, redirect } from "react-router";
import { changeJob, changePanel, copyJob, isPlacedOn, jobVersion, panelVersion } from "#server/commands/change-brief";
import { forgetPanel, removePanel, takeBackPanel } from "#server/commands/remove-panel";
import { type Panel, listPanels } from "#server/repos/panel-repo";
import { listRemovedPanels } from "#server/repos/removed-panel-repo";
import { listClears } from "#server/repos/product-repo";
import { listWays } from "#server/repos/way-repo";
import { serverContext } from "#server/running";
import { panelOr404 } from "~/kit/http/panel.server";
import { answerForm, textOf, versionIn } from "~/kit/form/answer";
import { guardedAction } from "~/kit/form/guarded-action";
import { acting, inWords } from "~/kit/form/in-words.server";
import { formOf } from "~/kit/http/body.server";
import { panelAloneOr404 } from "~/kit/http/panel.server";
import { formPrefs } from "~/kit/http/prefs.server";
import { jobShown, panelShown } from "./job-start";
import { changedJobForm, changedPanelForm, removedForm, sameOutlineForm } from "./job.form";
import { productChoice } from "./panel-fields";
import type { Route } from "./+types/change.route";
import { ChangeDesk } from "./change.desk";

export const meta: Route.MetaFunction = () => [{ title: "Change job and panel · Yakamoz" }];

export async function loader({ params: { jobId, panelId } }: Route.LoaderArgs) {
  const ctx = await serverContext();
  const view = await panelOr404(ctx, jobId, panelId);
  const products = (await listClears(ctx.db)).map(productChoice);
  const { sheet } = view.product;
  const own = productChoice({ revisionId: view.panel.productRevisionId, sheet: { ...sheet, name: `${sheet.name}, as planned` } });
  const [ways, panels, removed] = await Promise.all([listWays(ctx.db), listPanels(ctx.db, jobId), listRemovedPanels(ctx.db, jobId)]);
  return {
    job: view.job,
    // As the job has it, whatever House says of it now.
    ways: [view.job.way, ...ways.filter((w) => w.id !== view.job.way.id)],
    panel: view.panel,
    versions: { job: jobVersion(view.job), panel: panelVersion(view.panel) },
    formKey: ctx.newId(),
    placed: await isPlacedOn(ctx.db, panelId),
    alone: panels.length === 1,
    removed,
    products: products.some((p) => p.revisionId === own.revisionId) ? products : [own, ...products],
  };
}

export const action = acting(async ({ request, params: { jobId, panelId } }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const form = await formOf(request);
  const { units, by } = await formPrefs(request, form);
  switch (textOf(form, "intent")) {
    case "job":
      return answerForm(
        form,
        changedJobForm(units),
        async (brief) => ({
          message: (await changeJob(ctx, jobId, brief, { by, expected: versionIn(form) }))
            ? "Job changed; the ledger says so"
            : "Nothing was different",
        }),
        jobShown,
      );
    case "panel": {
      const { panel } = await panelAloneOr404(ctx, panelId);
      const schema = textOf(form, "outline") === "stays" ? sameOutlineForm(units, panel.shape) : changedPanelForm(units);
      return answerForm(
        form,
        schema as ReturnType<typeof changedPanelForm>,
        async (brief) => ({
          message: (await changePanel(ctx, panelId, brief, { by, expected: versionIn(form) }))
            ? "Panel changed; its ledger says so"
            : "Nothing was different",
        }),
        (there: Panel) => panelShown(there, units),
      );
    }
    case "remove":
      return inWords(async () => {
        await removePanel(ctx, { jobId, panelId, by });
        const [first] = await listPanels(ctx.db, jobId);
        return redirect(`/jobs/${jobId}/panels/${first!.id}/change`);
      });
    case "takeBack":
      return answerForm(form, removedForm, async (removed) => {
        await takeBackPanel(ctx, { jobId, panelId: removed.panelId });
        return { message: "The panel is back on this job" };
      });
    case "letGo":
      return answerForm(form, removedForm, async (removed) => {
        await forgetPanel(ctx, { jobId, panelId: removed.panelId });
        return { message: "Its file is gone" };
      });
    case "copy":
      return inWords(async () => {
        const made = await copyJob(ctx, jobId, textOf(form, "formKey") || null);
        return redirect(`/jobs/${made.jobId}/panels/${made.panelId}/course`);
      });
    default:
      throw data("Not understood", { status: 400 });
  }
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
export default function Change({ loaderData, params }: Route.ComponentProps) {
  return <ChangeDesk loaderData={loaderData} params={params} />;
}
