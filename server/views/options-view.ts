import { readyAt } from "#core/course/course";
import { cureOf } from "#core/course/cure";
import type { ShopRates } from "#core/judge/options";
import type { ServerContext } from "../context";
import { getShop } from "../repos/shop-repo";
import type { PanelView } from "./panel-view";

/** What the options need beside the panel: how far its cure is and how long until it bears paper, and what an hour costs here. */
export async function loadOptionSetting(ctx: ServerContext, view: PanelView): Promise<{ cured: number; left_s: number; rates: ShopRates }> {
  const { rates } = await getShop(ctx.db);
  return { ...curedOf(view, ctx.now_ms()), rates };
}

/** By the panel's one cure; a bought panel is long cured. */
function curedOf({ state, job, product: { sheet } }: PanelView, now_ms: number): { cured: number; left_s: number } {
  const cure = cureOf(sheet, state, now_ms);
  if (!cure) return { cured: 1, left_s: 0 };
  return { cured: Math.min(1, cure.age_s / sheet.sandAfter_s), left_s: Math.max(0, (readyAt(cure, job) - now_ms) / 1000) };
}
