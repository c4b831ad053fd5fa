import { Link, useFetcher } from "react-router";
import type { FormAnswer } from "~/kit/form/answer";
import { FilePress } from "~/kit/ui/file-press";
import { PageHeader } from "~/kit/shell/page-header";
import { JobList, RemovedList } from "./job-lists";
import { useJobActions } from "./use-job-actions";
import type { Route } from "./+types/jobs.route";

export function JobsDesk({ loaderData: { open, away, removed } }: Pick<Route.ComponentProps, "loaderData">) {
  const act = useJobActions();
  return (
    <>
      <PageHeader title="Jobs" note={`${open.all} on the floor, ${away.all} archived`} />
      <main className="space-y-8 px-4 py-6 sm:px-6">
        <div className="flex flex-wrap items-start gap-3">
          <Link to="/jobs/new" className="press" data-kind="main">
            New job
          </Link>
          <TakeIn />
        </div>
        <JobList id="open" caption="On the floor" listed={open} archived={false} act={act} />
        {away.all > 0 && <JobList id="away" caption="Archive" listed={away} archived act={act} />}
        {removed.length > 0 && <RemovedList removed={removed} act={act} />}
      </main>
    </>
  );
}

/** A job file from another shop or from a backup. */
function TakeIn() {
  const fetcher = useFetcher<{ problem: { column: string | null; reason: string } } | FormAnswer>();
  const answer = fetcher.data;
  const problem = !answer ? null : "problem" in answer ? answer.problem : { column: null, reason: answer.message ?? "Not understood" };
  return (
    <div>
      <FilePress
        accept=".json,application/json"
        onFile={(file) => {
          const form = new FormData();
          form.set("file", file);
          void fetcher.submit(form, { method: "post", action: "/do/jobs/import", encType: "multipart/form-data" });
        }}
      >
        {fetcher.state === "idle" ? "Take a job file in" : "Reading the file…"}
      </FilePress>
      {problem && (
        <p role="alert" className="mt-2 max-w-[60ch] text-sm font-medium text-stop-ink">
          Nothing was taken in. {problem.column && `${problem.column}: `}
          {problem.reason}
        </p>
      )}
    </div>
  );
}
