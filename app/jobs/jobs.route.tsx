import { Link, useFetcher, useSearchParams } from "react-router";
import { toast } from "~/kit/ui/toast";
import { format } from "date-fns";
import { FINISHES } from "#core/models/ways/house-ways";
import { serverContext } from "#server/running";
import { countJobs, listJobs } from "#server/repos/job-repo";
import { PageHeader } from "~/kit/shell/page-header";
import type { Route } from "./+types/jobs.route";

export const meta: Route.MetaFunction = () => [{ title: "Jobs · Yakamoz" }];

/** Jobs of one page. */
const PAGE = 40;

export async function loader({ request }: Route.LoaderArgs) {
  const { db } = await serverContext();
  const { searchParams } = new URL(request.url);
  const list = async (archived: boolean, page: number) => {
    const count = await countJobs(db, { archived });
    const pages = Math.max(1, Math.ceil(count / PAGE));
    const at = Math.min(page, pages);
    const jobs = await listJobs(db, { archived, most: PAGE, from: (at - 1) * PAGE });
    return { count, pages, page: at, jobs: jobs.map((j) => ({ ...j, from: format(j.createdAt_ms, "d MMM yyyy") })) };
  };
  const [open, away] = await Promise.all([list(false, pageOf(searchParams, "page")), list(true, pageOf(searchParams, "away"))]);
  return { open, away };
}
/** A page's number out of an address: from 1; anything else is the first. */
function pageOf(params: URLSearchParams, name: string): number {
  const page = Number(params.get(name));
  return Number.isSafeInteger(page) && page > 0 ? page : 1;
}
type Listed = Route.ComponentProps["loaderData"]["open"];

export default function Jobs({ loaderData: { open, away } }: Route.ComponentProps) {
  return (
    <>
      <PageHeader title="Jobs" note={`${open.count} on the floor, ${away.count} put away`} />
      <main className="space-y-8 px-4 py-6 sm:px-6">
        <div className="flex flex-wrap items-start gap-3">
          <Link to="/jobs/new" className="press" data-kind="main">
            New job
          </Link>
          <TakeIn />
        </div>
        <JobTable caption="On the floor" list={open} archived={false} />
        <Pages list={open} name="page" what="on the floor" />
        {away.count > 0 && <JobTable caption="Put away" list={away} archived />}
        <Pages list={away} name="away" what="put away" />
      </main>
    </>
  );
}

/** Earlier and later jobs, where there are more than one page holds. */
function Pages({ list, name, what }: { list: Listed; name: string; what: string }) {
  const [params] = useSearchParams();
  if (list.pages === 1) return null;
  const to = (page: number) => {
    const next = new URLSearchParams(params);
    next.set(name, String(page));
    return `?${next.toString()}`;
  };
  return (
    <nav aria-label={`Pages of jobs ${what}`} className="-mt-4 flex items-center gap-3">
      {list.page > 1 && (
        <Link to={to(list.page - 1)} className="press">
          Newer
        </Link>
      )}
      <span className="text-ink2">
        Page {list.page} of {list.pages}
      </span>
      {list.page < list.pages && (
        <Link to={to(list.page + 1)} className="press">
          Older
        </Link>
      )}
    </nav>
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

function JobTable({ caption, list, archived }: { caption: string; list: Listed; archived: boolean }) {
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
        {list.jobs.map((j) => (
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
                  toast.plain(archived ? `${j.vehicle} is back on the floor` : `${j.vehicle} is put away`, {
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
