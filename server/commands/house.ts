import type { ServerContext } from "../context";
import { versionOf } from "../repos/digest";
import { type ShopSettings, getShop, saveShop, shopSettings } from "../repos/shop-repo";
import { refuseOther } from "./refusal";
import { run } from "./run";

/** Those of the shop's settings that the page of the house changes as one form. */
export const HOUSE_FORM = ["name", "wayId", "region", "floor_m", "readingsPerSpot", "airChanges_1_h", "rates", "units"] as const;
export type HouseSettings = Pick<ShopSettings, (typeof HOUSE_FORM)[number]>;
export const houseVersion = (shop: ShopSettings): string => versionOf(HOUSE_FORM.map((k) => shop[k]));

/** Changes the shop's settings upon what they are now: what two windows change beside each other both stands. */
export async function changeShop(ctx: ServerContext, change: (now: ShopSettings) => ShopSettings): Promise<void> {
  await run(ctx, null, async ({ db, now_ms, tell }) => {
    await saveShop(db, shopSettings.parse(change(await getShop(db))), now_ms);
    tell({ topic: "shop", id: "shop" });
  });
}

/** Saves what the page of the house says. @throws ChangedMeanwhile where another window has saved it since the form was filled in */
export async function saveHouse(ctx: ServerContext, settings: HouseSettings, expected: string | null): Promise<void> {
  await changeShop(ctx, (now) => {
    refuseOther(expected, now, houseVersion(now));
    return { ...now, ...settings };
  });
}
