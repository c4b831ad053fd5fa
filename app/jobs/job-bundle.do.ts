import { data } from "react-router";
import { exportJob } from "#server/commands/job-bundles";
import { removedJobFile } from "#server/repos/removed-job-repo";
import { serverContext } from "#server/running";
import type { Route } from "./+types/job-bundle.do";

/** A job as one file; of a deleted job the file that it left. */
export async function loader({ params: { jobId } }: Route.LoaderArgs) {
  const ctx = await serverContext();
  const bundle = await exportJob(ctx, jobId);
  const left = bundle ? null : await removedJobFile(ctx.db, jobId);
  if (!bundle && left === null) throw data("This job is not in the file.", { status: 404 });
  return new Response(left ?? JSON.stringify(bundle, null, 1), {
    headers: { "Content-Type": "application/json", "Content-Disposition": "attachment", "Cache-Control": "no-store" },
  });
}
