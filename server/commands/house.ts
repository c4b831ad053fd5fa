import { requireRight } from "../access/actor";
import { isDeepStrictEqual } from "node:util";
import type { ServerContext } from "../context";
import { versionOf } from "../repos/digest";
import { type ShopSettings, getShop, saveShop, shopFactors, shopSettings } from "../repos/shop-repo";
import { markUnfinishedStale, moreAreStale, refreshStale } from "../repos/summary-repo";
import { refuseOther } from "./refusal";
import { run } from "./run";

/** Those of the shop's settings that the page of the house changes as one form. */
export const HOUSE_FORM = ["name", "wayId", "region", "floor_m", "readingsPerSpot", "airChanges_1_h", "rates", "units"] as const;
export type HouseSettings = Pick<ShopSettings, (typeof HOUSE_FORM)[number]>;
export const houseVersion = (shop: ShopSettings): string => versionOf(HOUSE_FORM.map((k) => shop[k]));

/** Changes the shop's settings upon what they are now: what two windows change beside each other both stands. */
export async function changeShop(ctx: ServerContext, change: (now: ShopSettings) => ShopSettings): Promise<void> {
  const made = await run(ctx, null, async ({ db, now_ms, tell }) => {
    const was = await getShop(db);
    const now = shopSettings.parse(change(was));
    await saveShop(db, now, now_ms);
    tell({ topic: "shop", id: "shop" });
    if (isDeepStrictEqual(shopFactors(was), shopFactors(now))) return 0;
    await markUnfinishedStale(db);
    return refreshStale(db);
  });
  // Of a floor so large that one moment is not enough; those marked are made anew at the next start if this process ends before.
  if (moreAreStale(made)) void refreshTheRest(ctx).catch(() => {});
}

async function refreshTheRest(ctx: ServerContext): Promise<void> {
  let made = 0;
  do
    made = await run(ctx, null, async ({ db, tell }) => {
      tell({ topic: "shop", id: "shop" });
      return refreshStale(db);
    });
  while (moreAreStale(made));
}

/** Saves what the page of the house says. @throws ChangedMeanwhile where another window has saved it since the form was filled in */
export async function saveHouse(ctx: ServerContext, settings: HouseSettings, expected: string | null): Promise<void> {
  requireRight(ctx, "shop");
  await changeShop(ctx, (now) => {
    refuseOther(expected, now, houseVersion(now));
    return { ...now, ...settings };
  });
}
