import { type CureStatus, filmOf, minuteOf } from "#core/course/cure-status";
import type { ShopRates } from "#core/judge/option-figures";
import type { ServerContext } from "../context";
import type { PanelView } from "./panel-view";

/** What the options need beside the panel: how far its clear is, by the panel's one cure, and what an hour costs here. */
export const optionSetting = (ctx: ServerContext, view: PanelView): CureStatus & { rates: ShopRates } => ({
  ...filmOf(view, minuteOf(ctx.now_ms())),
  rates: view.rates,
});
