import { data, redirect } from "react-router";
import { z } from "zod";
import { serverContext } from "#server/running";
import { archiveJob } from "#server/commands/jobs";
import { deleteJob, forgetJob, takeBackJob } from "#server/commands/remove-job";
import type { ServerContext } from "#server/context";
import { listStandings } from "#server/repos/summary-repo";
import { readPrefs } from "~/kit/http/prefs.server";
import { formOf } from "~/kit/http/body.server";
import { guardedAction } from "~/kit/form/guarded-action";
import { acting, inWords } from "~/kit/form/in-words.server";
import type { JobActionAnswer, JobIntent } from "./use-job-actions";
import type { Route } from "./+types/job.route";

/** A job opens at the course of its first unfinished panel. */
export async function loader({ params }: Route.LoaderArgs) {
  const ctx = await serverContext();
  const panels = await listStandings(ctx.db, [params.jobId]);
  const panel = panels.find((p) => !p.standing.done) ?? panels[0];
  if (!panel) throw data("This job is not in the file.", { status: 404 });
  return redirect(`/jobs/${params.jobId}/panels/${panel.panelId}/course`);
}

const asked = z.object({
  intent: z.enum(["putAway", "bringBack", "delete", "takeBack", "forget"]),
  vehicle: z.string().max(200).default(""),
});

export const action = acting(async ({ request, params: { jobId } }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const { by } = await readPrefs(request);
  const form = asked.safeParse(Object.fromEntries(await formOf(request)));
  if (!form.success) throw data("Not understood", { status: 400 });
  const { intent, vehicle } = form.data;
  return inWords(async (): Promise<JobActionAnswer> => {
    await CARRY_OUT[intent](ctx, jobId, by);
    return { ok: true, intent, jobId, vehicle };
  });
});
const CARRY_OUT: Record<JobIntent, (ctx: ServerContext, jobId: string, by: string) => Promise<void>> = {
  putAway: (ctx, jobId) => archiveJob(ctx, jobId, true),
  bringBack: (ctx, jobId) => archiveJob(ctx, jobId, false),
  delete: (ctx, jobId, by) => deleteJob(ctx, { jobId, by }),
  takeBack: takeBackJob,
  forget: forgetJob,
};

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
