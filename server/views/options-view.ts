import { type FilmState, filmOf } from "#core/course/film-phase";
import type { ShopRates } from "#core/judge/option-figures";
import type { ServerContext } from "../context";
import { getShop } from "../repos/shop-repo";
import type { PanelView } from "./panel-view";

/** What the options need beside the panel: how far its clear is, by the panel's one cure, and what an hour costs here. */
export async function loadOptionSetting(ctx: ServerContext, view: PanelView): Promise<FilmState & { rates: ShopRates }> {
  const { rates } = await getShop(ctx.db);
  return { ...filmOf(view, ctx.now_ms()), rates };
}
