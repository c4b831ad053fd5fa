import { data, redirect } from "react-router";
import { serverContext } from "#server/context";
import { archiveJob } from "#server/commands/jobs";
import { listPanels } from "#server/repos/panel-repo";
import { loadPanelView } from "#server/views/panel-view";
import type { Route } from "./+types/job";

/** A job opens at its first unfinished panel, at the station where the work stands. */
export async function loader({ params }: Route.LoaderArgs) {
  const ctx = await serverContext();
  const panels = await listPanels(ctx.db, params.jobId);
  const views = await Promise.all(panels.map((p) => loadPanelView(ctx, params.jobId, p.id)));
  const view = views.find((v) => v && !v.station.done) ?? views[0];
  if (!view) throw data("This job is not in the file.", { status: 404 });
  return redirect(`/jobs/${params.jobId}/panels/${view.panel.id}/${view.station.station}`);
}

export async function action({ request, params }: Route.ActionArgs) {
  const form = await request.formData();
  await archiveJob(await serverContext(), params.jobId, form.get("archived") === "true");
  return { ok: true };
}
