import type { ProductSheet } from "../models/product/sheet";
import { type Deposit, deposit } from "../models/spray/deposit";
import { UNLOGGED_AIR_K } from "../models/trade-limits";
import type { BodyOf } from "../record/bodies";
import { MODEL_FILM, type ShopFilm } from "./builds";

/** Film a logged coat is predicted to have laid. */
export function predictCoat(
  coat: Pick<BodyOf<"coat">, "settings" | "reducer">,
  sheet: ProductSheet,
  air_K: number = UNLOGGED_AIR_K,
  shop: ShopFilm = MODEL_FILM,
): Deposit {
  return deposit(coat.settings, {
    air_K,
    speed: sheet.speed,
    volumeSolids: sheet.volumeSolids,
    reducer: coat.reducer,
    shopFactor: shop.factor,
    shopLogSd: shop.u_log,
  });
}
