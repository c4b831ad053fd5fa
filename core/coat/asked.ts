import type { ShopFactors } from "../models/flow/simulate-coats";
import type { ProductSheet } from "../models/product/sheet";
import type { HouseWay } from "../models/ways/way";
import type { PanelBrief } from "../panel/brief";
import type { ShopFilm } from "../panel/shop-film";
import type { PanelFacts } from "../panel/derive-panel";
import type { CoatsAsked } from "./coats-ahead";
import type { NextAsked } from "./next-coat";

/** What of a panel as it is looked at its coats are asked from. */
export interface PanelCoats {
  panel: PanelBrief;
  state: PanelFacts;
  product: { sheet: ProductSheet };
  job: { way: HouseWay };
  shopFactors?: ShopFactors | undefined;
  shopFilm: Pick<ShopFilm, "u_log">;
}

/** What the next coat and the gun in the hand are asked from. */
export const nextAsked = ({
  panel,
  state,
  product,
  job,
}: Pick<PanelCoats, "panel" | "state" | "product" | "job">): NextAsked & { brief: PanelBrief; facts: PanelFacts; sheet: ProductSheet } => ({
  brief: panel,
  facts: state,
  way: job.way,
  sheet: product.sheet,
});

/** What the coats to come are asked from; by another way with as many coats as that has. */
export const coatsAsked = (view: PanelCoats, now_ms: number, way: HouseWay = view.job.way): CoatsAsked => ({
  ...nextAsked(view),
  brief: way.id === view.job.way.id ? view.panel : { ...view.panel, coatsPlanned: way.coats.length },
  way,
  shop: view.shopFactors,
  shopFilm: view.shopFilm,
  now_ms,
});
