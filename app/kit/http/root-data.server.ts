import { listClocks } from "#server/repos/clock-repo";
import { listJobs } from "#server/repos/job-repo";
import { namesOfPanels } from "#server/repos/panel-repo";
import { getShop, shopRegion } from "#server/repos/shop-repo";
import type { ServerContext } from "#server/context";
import { isDemo } from "#server/looking";
import { keeper, serverContext } from "#server/running";
import { type Keeping, keepingFault } from "#server/storage/keeper";
import { readPrefs } from "./prefs.server";

/** Data of the shell: preferences of this screen, clocks, the shop, the newest jobs. */
export async function loadRoot(request: Request) {
  const ctx = await serverContext();
  const now_ms = ctx.now_ms();
  const shown = await ctx.reads.read("root", now_ms, () => readRoot(ctx, now_ms));
  return {
    prefs: await readPrefs(request, shown.shop.units),
    ...shown,
    now_ms,
    demo: isDemo(),
    keeping: told(keeper()?.keeping() ?? null),
  };
}

/** What every page is told of how the shop is kept: the room that is left, where it is little, and that something is wrong. */
const told = (keeping: Keeping | null) => ({
  nearlyFull: keeping?.disk?.isNearlyFull ? { free_bytes: keeping.disk.free_bytes } : null,
  fault: keeping !== null && keepingFault(keeping) !== null,
});

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
