import { type CupSheet, mixViscosity22C } from "../models/product/mix-viscosity";
import type { ActivatorSpeed } from "../models/spray/constants";
import { type Deposit, deposit } from "../models/spray/deposit";
import type { BodyOf } from "../record/bodies";
import { MODEL_FILM, type ShopFilm } from "./shop-film";

/** What a coat is sprayed in: the air, the material where it is not as warm, the hardener as it was mixed. */
export interface SprayedIn {
  air_K: number;
  material_K: number | null;
  speed: ActivatorSpeed;
}

/** Film a coat is predicted to lay. @throws RangeError */
export const predictCoat = (
  { settings, reducer }: Pick<BodyOf<"coat">, "settings" | "reducer">,
  sheet: CupSheet,
  sprayed: SprayedIn,
  shop: ShopFilm = MODEL_FILM,
): Deposit =>
  deposit(settings, {
    ...sprayed,
    volumeSolids: sheet.volumeSolids,
    viscosity22C_Pa_s: mixViscosity22C(sheet),
    reducer,
    shopFactor: shop.factor,
    shopLogSd: shop.u_log,
  });
