import { Link, useFetcher } from "react-router";
import { toast } from "sonner";
import { format } from "date-fns";
import { FINISHES } from "#core/ways/house-ways";
import { serverContext } from "#server/context";
import { listJobs } from "#server/repos/job-repo";
import { PageHeader } from "~/ui/page-header";
import type { Route } from "./+types/jobs";

export const meta: Route.MetaFunction = () => [{ title: "Jobs · Yakamoz" }];

export async function loader() {
  const { db } = await serverContext();
  const [open, archived] = await Promise.all([listJobs(db), listJobs(db, { archived: true })]);
  const dated = (jobs: typeof open) => jobs.map((j) => ({ ...j, from: format(j.createdAt_ms, "d MMM yyyy") }));
  return { open: dated(open), archived: dated(archived) };
}
type Row = Route.ComponentProps["loaderData"]["open"][number];

export default function Jobs({ loaderData: { open, archived } }: Route.ComponentProps) {
  return (
    <>
      <PageHeader title="Jobs" note={`${open.length} on the floor, ${archived.length} put away`} />
      <main className="space-y-8 px-4 py-6 sm:px-6">
        <div className="flex flex-wrap items-start gap-3">
          <Link to="/jobs/new" className="press" data-kind="main">
            New job
          </Link>
          <TakeIn />
        </div>
        <JobTable caption="On the floor" jobs={open} archived={false} />
        {archived.length > 0 && <JobTable caption="Put away" jobs={archived} archived />}
      </main>
    </>
  );
}

/** A job file from another shop or from a backup. */
function TakeIn() {
  const fetcher = useFetcher<{ problem: { column: string | null; reason: string } }>();
  const problem = fetcher.data?.problem;
  return (
    <div>
      <label className="press">
        {fetcher.state === "idle" ? "Take a job file in" : "Reading the file…"}
        <input
          type="file"
          accept=".json,application/json"
          className="sr-only"
          onChange={(e) => {
            const file = e.target.files?.[0];
            e.target.value = "";
            if (!file) return;
            const form = new FormData();
            form.set("file", file);
            void fetcher.submit(form, { method: "post", action: "/do/jobs/import", encType: "multipart/form-data" });
          }}
        />
      </label>
      {problem && (
        <p role="alert" className="mt-2 max-w-[60ch] text-sm font-medium text-stop-ink">
          Nothing was taken in. {problem.column && `${problem.column}: `}
          {problem.reason}
        </p>
      )}
    </div>
  );
}

function JobTable({ caption, jobs, archived }: { caption: string; jobs: readonly Row[]; archived: boolean }) {
  const fetcher = useFetcher();
  const put = (id: string, away: boolean) => void fetcher.submit({ archived: String(away) }, { method: "post", action: `/jobs/${id}` });
  return (
    <table className="w-full text-left">
      <caption className="pb-2 text-left text-lg font-semibold">{caption}</caption>
      <thead className="small-label border-b border-hair">
        <tr>
          <th className="py-2">Vehicle</th>
          <th className="hidden sm:table-cell">Colour</th>
          <th className="hidden sm:table-cell">Finish</th>
          <th>From</th>
          <th>
            <span className="sr-only">Put away or back</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {jobs.map((j) => (
          <tr key={j.id} className="border-b border-hair">
            <td>
              <Link to={`/jobs/${j.id}`} className="flex min-h-11 items-center font-semibold underline-offset-4 hover:underline">
                {j.vehicle}
              </Link>
            </td>
            <td className="hidden sm:table-cell">{j.colourName}</td>
            <td className="hidden sm:table-cell">{FINISHES[j.finish]}</td>
            <td>{j.from}</td>
            <td className="text-right">
              <button
                type="button"
                className="press"
                data-kind="quiet"
                onClick={() => {
                  put(j.id, !archived);
                  toast(archived ? `${j.vehicle} is back on the floor` : `${j.vehicle} is put away`, {
                    action: { label: "Undo", onClick: () => put(j.id, archived) },
                  });
                }}
              >
                {archived ? "Bring back" : "Put away"}
                <span className="sr-only"> {j.vehicle}</span>
              </button>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
