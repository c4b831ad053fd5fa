import { cureFromLog } from "#core/models/cure/bake-plan";
import type { ShopRates } from "#core/judge/options";
import type { ServerContext } from "../context";
import { getShop } from "../repos/shop-repo";
import type { PanelView } from "./panel-view";

/** What the options need beside the panel: how far its cure is, and what an hour costs here. */
export async function loadOptionSetting(ctx: ServerContext, view: PanelView): Promise<{ cured: number; rates: ShopRates }> {
  const { rates } = await getShop(ctx.db);
  return { cured: curedShare(view, ctx.now_ms()), rates };
}

/** Share of the cure to sanding: by the part's own temperature log where there is one, else by the clock at 20 °C. */
function curedShare({ state, product }: PanelView, now_ms: number): number {
  const last = state.coats.at(-1);
  if (!last) return 1; // a bought panel, long cured
  const wanted_s = product.sheet.sandAfter_s;
  const clock_s = (now_ms - last.entry.at_ms) / 1000;
  if (state.oven && state.oven.at_ms > last.entry.at_ms) {
    const { samples } = state.oven.body;
    const logged = cureFromLog(product.sheet, samples);
    const after_s = Math.max(0, clock_s - samples.at(-1)!.at_s);
    return Math.min(1, (logged.age_s + after_s) / wanted_s);
  }
  return Math.min(1, clock_s / wanted_s);
}
