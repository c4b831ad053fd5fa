import { type CureStatus, filmOf, minuteOf } from "#core/course/cure-status";
import type { ShopRates } from "#core/judge/option-figures";
import { may, mayNotWords } from "../access/rights";
import { Refusal } from "../commands/refusal";
import type { ServerContext } from "../context";
import type { PanelView } from "./panel-view";

/** What the options need beside the panel: how far its clear is, by the panel's one cure, and what an hour costs here. */
export function optionSetting(ctx: ServerContext, view: PanelView): CureStatus & { rates: ShopRates } {
  const { role } = ctx.actor;
  if (view.rates === null || !may(role, "costs")) throw new Refusal(null, mayNotWords(role, "costs"), 403);
  return { ...filmOf(view, minuteOf(ctx.now_ms())), rates: view.rates };
}
