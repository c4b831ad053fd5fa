import { format } from "date-fns";
import { serverContext } from "#server/running";
import { countJobs, listJobs } from "#server/repos/job-repo";
import { listRemovedJobs } from "#server/repos/removed-job-repo";
import { readListState, searchedWords } from "~/kit/list/list-state";
import { JOBS_A_PAGE } from "./job-lists";
import type { Route } from "./+types/jobs.route";
import { JobsDesk } from "./jobs.desk";

export const meta: Route.MetaFunction = () => [{ title: "Jobs · Yakamoz" }];

export async function loader({ request }: Route.LoaderArgs) {
  const { db } = await serverContext();
  const { searchParams } = new URL(request.url);
  const list = async (id: string, archived: boolean) => {
    const { search, only: finish, sort, desc, page } = readListState(searchParams, id);
    const asked = { archived, words: searchedWords(search), finish };
    const [all, found] = await Promise.all([countJobs(db, { archived }), countJobs(db, asked)]);
    const from = (Math.min(page, Math.max(1, Math.ceil(found / JOBS_A_PAGE))) - 1) * JOBS_A_PAGE;
    const jobs = await listJobs(db, { ...asked, sort, desc, most: JOBS_A_PAGE, from });
    return { all, found, jobs: jobs.map((j) => ({ ...j, from: format(j.createdAt_ms, "d MMM yyyy") })) };
  };
  const [open, away, removed] = await Promise.all([list("open", false), list("away", true), listRemovedJobs(db)]);
  return { open, away, removed: removed.map((r) => ({ ...r, on: format(r.removedAt_ms, "d MMM yyyy HH:mm") })) };
}
export default function Jobs({ loaderData }: Route.ComponentProps) {
  return <JobsDesk loaderData={loaderData} />;
}
