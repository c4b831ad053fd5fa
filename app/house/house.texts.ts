import type { UnitPreferences } from "#core/kernel/units/quantities";
import type { Region, ShopSettings } from "#server/repos/shop-repo";
import { initial } from "~/kit/form/initial";

/** What a shop can learn against the model, and where it is kept. */
export const LEARNT = {
  film: { name: "Film laid", setting: "learntFilm" },
  runs: { name: "Levelling and runs", setting: "learntRuns" },
  texture: { name: "Texture", setting: "learntTexture" },
  removal: { name: "Sanding and polishing", setting: "learntRemoval" },
} as const;
export const LEARNT_KEYS = ["film", "runs", "texture", "removal"] as const;

/** The fields of the form as they start, in the units of the screen. */
export const houseTexts = (shop: ShopSettings, region: Region, units: UnitPreferences) => ({
  name: shop.name,
  wayId: shop.wayId,
  region,
  floor: initial("film", shop.floor_m, units),
  readingsPerSpot: String(shop.readingsPerSpot),
  airChanges: shop.airChanges_1_h === null ? "" : String(shop.airChanges_1_h),
  labourPerHour: String(shop.rates.labourPerHour),
  rejected: String(shop.rates.rejected),
  waitingPerDay: String(shop.rates.waitingPerDay),
});
