import { data, redirect } from "react-router";
import { stationOf } from "#core/panel/station";
import { serverContext } from "#server/running";
import { archiveJob } from "#server/commands/jobs";
import { listCounts } from "#server/repos/summary-repo";
import { formOf } from "~/kit/http/body.server";
import { textOf } from "~/kit/form/answer";
import { guardedAction } from "~/kit/form/guarded-action";
import { inWords } from "~/kit/form/in-words.server";
import type { Route } from "./+types/job.route";

/** A job opens at its first unfinished panel, at the station where the work stands. */
export async function loader({ params }: Route.LoaderArgs) {
  const ctx = await serverContext();
  const panels = (await listCounts(ctx.db, [params.jobId])).map((p) => ({ id: p.panelId, ...stationOf(p.counts) }));
  const panel = panels.find((p) => !p.done) ?? panels[0];
  if (!panel) throw data("This job is not in the file.", { status: 404 });
  return redirect(`/jobs/${params.jobId}/panels/${panel.id}/${panel.station}`);
}

export async function action({ request, params }: Route.ActionArgs) {
  const form = await formOf(request);
  return inWords(async () => {
    await archiveJob(await serverContext(), params.jobId, textOf(form, "archived") === "true");
    return { ok: true };
  });
}

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
