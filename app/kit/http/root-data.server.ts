import type { Known } from "#server/access/guard";
import { type Right, type Role, rightsOf } from "#server/access/rights";
import { listClocks } from "#server/repos/clock-repo";
import { listJobs } from "#server/repos/job-repo";
import { namesOfPanels } from "#server/repos/panel-repo";
import { type ShopSettings, getShop, shopRegion } from "#server/repos/shop-repo";
import type { ServerContext } from "#server/context";
import { isDemo } from "#server/looking";
import { keeper, serverContext } from "#server/running";
import { type Keeping, keepingFault } from "#server/storage/keeper";
import { readPrefs } from "./prefs.server";

/** Data of the shell: preferences of this screen, clocks, the shop, the newest jobs. */
export async function loadRoot(request: Request, known: Known) {
  const ctx = await serverContext();
  const now_ms = ctx.now_ms();
  const all = await ctx.reads.read("root", now_ms, () => readRoot(ctx, now_ms));
  const who = whoIs(known);
  // Of the shop nothing is told to somebody who has not signed in, and of its costs nothing to somebody who does not see them.
  const shown = who === "nobody" ? { ...all, clocks: [], jobs: [] } : all;
  return {
    prefs: await readPrefs(request, shown.shop.units),
    ...shown,
    shop: shownShop(shown.shop),
    who,
    now_ms,
    demo: isDemo(),
    keeping: told(keeper()?.keeping() ?? null),
  };
}

/** Of the shop's settings what every page may know: all but its costs. */
function shownShop(shop: ShopSettings): Omit<ShopSettings, "rates"> {
  const shown: Partial<ShopSettings> = { ...shop };
  delete shown.rates;
  return shown as Omit<ShopSettings, "rates">;
}

/** Who stands at the screen; null where nobody signs in. */
export interface Who {
  name: string;
  role: Role;
  device: string;
  rights: readonly Right[];
  /** Plain http on the network: no camera, no serial devices, no start without the server. */
  plain: boolean;
}
function whoIs({ asked, person, device, secure, local }: Known): Who | "nobody" | null {
  if (!asked) return null;
  if (!person || !device) return "nobody";
  const { name, role } = person;
  return { name, role, device: device.name, rights: rightsOf(role), plain: !secure && !local };
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
