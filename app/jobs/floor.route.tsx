import { group } from "d3-array";
import type { ServerContext } from "#server/context";
import { serverContext } from "#server/running";
import { getJobs } from "#server/repos/job-repo";
import { floorJobs, listStandings } from "#server/repos/summary-repo";
import { loadCans } from "#server/views/cans-view";
import { actionWords, isPast, isHeld } from "~/kit/words/step-words";
import type { Route } from "./+types/floor.route";
import { IMPERIAL, METRIC } from "#core/kernel/units/quantities";
import { changeShop } from "#server/commands/house";
import { wayById } from "#server/commands/ways";
import { listClears } from "#server/repos/product-repo";
import { getShop } from "#server/repos/shop-repo";
import { listWays } from "#server/repos/way-repo";
import { answerForm } from "~/kit/form/answer";
import { guardedAction } from "~/kit/form/guarded-action";
import { acting } from "~/kit/form/in-words.server";
import { formOf } from "~/kit/http/body.server";
import { formPrefs } from "~/kit/http/prefs.server";
import type { First } from "./first-hour";
import { firstShopForm } from "./first-hour.form";
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
    first: floor.count === 0 ? await loadFirst(ctx) : null,
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
/** What an empty shop has been told already. */
async function loadFirst(ctx: ServerContext): Promise<First> {
  const [shop, ways, clears] = await Promise.all([getShop(ctx.db), listWays(ctx.db), listClears(ctx.db)]);
  return {
    named: shop.name !== UNNAMED,
    shop: { name: shop.name, wayId: shop.wayId, floor_m: shop.floor_m },
    ways: ways.map(({ id, name }) => ({ id, name })),
    clear: clears.length > 0,
  };
}
/** As a shop is called before anybody has named it. */
const UNNAMED = "Our shop";

export const action = acting(async ({ request }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const form = await formOf(request);
  const { units } = await formPrefs(request, form);
  return answerForm(form, firstShopForm(units), async ({ floor, name, region, wayId }) => {
    await wayById(ctx.db, wayId);
    const shown = region === "american" ? IMPERIAL : METRIC;
    await changeShop(ctx, (now) => ({ ...now, name, region, wayId, floor_m: floor, units: { ...now.units, ...shown } }));
    return { message: "Kept; all of it can be changed under House" };
  });
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);

export default function Floor({ loaderData }: Route.ComponentProps) {
  return <FloorDesk loaderData={loaderData} />;
}
