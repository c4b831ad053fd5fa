import { type FilmState, filmState } from "#core/course/film-phase";
import type { ShopRates } from "#core/judge/option-figures";
import type { ServerContext } from "../context";
import { getShop } from "../repos/shop-repo";
import type { PanelView } from "./panel-view";

/** What the options need beside the panel: how far its clear is, by the panel's one cure, and what an hour costs here. */
export async function loadOptionSetting(ctx: ServerContext, view: PanelView): Promise<FilmState & { rates: ShopRates }> {
  const { rates } = await getShop(ctx.db);
  return { ...filmOf(view, ctx.now_ms()), rates };
}

/** How far the clear of a panel is at a moment. */
export const filmOf = ({ state: facts, job, product }: PanelView, now_ms: number): FilmState =>
  filmState({ facts, sheet: product.sheet, way: job.way, finish: job.finish, now_ms });
