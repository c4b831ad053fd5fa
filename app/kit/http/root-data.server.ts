import { listClocks } from "#server/repos/clock-repo";
import { listJobs } from "#server/repos/job-repo";
import { namesOfPanels } from "#server/repos/panel-repo";
import { getShop, shopRegion } from "#server/repos/shop-repo";
import type { ServerContext } from "#server/context";
import { isDemo } from "#server/looking";
import { serverContext } from "#server/running";
import { readPrefs } from "./prefs.server";

/** Data of the shell: preferences of this screen, clocks, the shop, the newest jobs. */
export async function loadRoot(request: Request) {
  const ctx = await serverContext();
  const now_ms = ctx.now_ms();
  const shown = await ctx.reads.read("root", now_ms, () => readRoot(ctx, now_ms));
  return { prefs: await readPrefs(request, shown.shop.units), ...shown, now_ms, demo: isDemo() };
}

async function readRoot(ctx: ServerContext, now_ms: number) {
  const published = ctx.bus.published(); // before anything is read: what comes later is missing in this page
  const [shop, clocks, jobs] = await Promise.all([getShop(ctx.db), listClocks(ctx.db, now_ms), listJobs(ctx.db, { most: 30 })]);
  const panels = await namesOfPanels(
    ctx.db,
    jobs.map((j) => j.id),
  );
  return {
    shop,
    region: shopRegion(shop),
    clocks,
    published,
    jobs: jobs.map((j) => ({ id: j.id, vehicle: j.vehicle, colourName: j.colourName, panels: panels.get(j.id) ?? [] })),
  };
}
export type RootData = Awaited<ReturnType<typeof loadRoot>>;
