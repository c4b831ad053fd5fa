import { coatsAsked } from "#core/coat/asked";
import { type PlanAhead, planAhead } from "#core/coat/plan-ahead";
import { clearNow } from "#core/judge/how-known";
import type { PanelView } from "./panel-view";

/** What a panel's coats come to, by the coats' owner and the film's. */
export const loadPlanAhead = (view: PanelView, now_ms: number): PlanAhead => planAhead(coatsAsked(view, now_ms), clearNow(view.state));
