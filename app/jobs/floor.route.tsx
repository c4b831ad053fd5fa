import { group } from "d3-array";
import type { ServerContext } from "#server/context";
import { serverContext } from "#server/running";
import { getJobs } from "#server/repos/job-repo";
import { floorJobs, listStandings } from "#server/repos/summary-repo";
import { loadCans } from "#server/views/cans-view";
import { actionWords, isPast, isHeld } from "~/kit/words/step-words";
import type { Route } from "./+types/floor.route";
import { FloorDesk } from "./floor.desk";

export const meta: Route.MetaFunction = () => [{ title: "Shop floor · Yakamoz" }];

/** So many jobs fit a glance; the rest stand under Jobs. */
const MOST_JOBS = 24;

export async function loader() {
  const ctx = await serverContext();
  return ctx.reads.read("floor", ctx.now_ms(), () => readFloor(ctx));
}

async function readFloor(ctx: ServerContext) {
  const [floor, cans] = await Promise.all([floorJobs(ctx.db, MOST_JOBS), loadCans(ctx)]);
  const [jobs, panels] = await Promise.all([getJobs(ctx.db, floor.jobIds), listStandings(ctx.db, floor.jobIds)]);
  const now_ms = ctx.now_ms();
  const byJob = group(panels, (p) => p.jobId);
  // What wants a hand only since its window closed, the air went cold or its pot died stands in no row: it is told by the hour.
  const byTheHour = ({ standing }: (typeof panels)[number]) => isPast(standing, now_ms) || isHeld(standing, now_ms);
  const more = panels.filter((p) => !p.standing.attention && byTheHour(p));
  return {
    jobs: jobs.map((j) => ({
      ...j,
      panels: (byJob.get(j.id) ?? []).map((p) => ({
        id: p.panelId,
        name: p.name,
        station: p.standing.station,
        next: actionWords(p.standing, now_ms),
        attention: p.standing.attention || byTheHour(p),
      })),
    })),
    cans: cans.filter((c) => c.age.state !== "good" && c.age.state !== "empty"),
    count: floor.count,
    open: floor.open,
    wanting: floor.wanting + more.length,
  };
}
export default function Floor({ loaderData }: Route.ComponentProps) {
  return <FloorDesk loaderData={loaderData} />;
}
