import { data } from "react-router";
import { exportJob } from "#server/commands/job-bundles";
import { serverContext } from "#server/running";
import type { Route } from "./+types/job-bundle.do";

/** A job as one file. */
export async function loader({ params: { jobId } }: Route.LoaderArgs) {
  const bundle = await exportJob(await serverContext(), jobId);
  if (!bundle) throw data("This job is not in the file.", { status: 404 });
  return new Response(JSON.stringify(bundle, null, 1), {
    headers: { "Content-Type": "application/json", "Content-Disposition": "attachment", "Cache-Control": "no-store" },
  });
}
