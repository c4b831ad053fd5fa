import { type EventAttributes, createEvents } from "ics";
import { CURE_STAGES } from "#core/models/cure/bake-plan";
import { type CureDate, cureDates, cureOf } from "#core/coat/cure";
import type { PanelView } from "../views/panel-view";

const FROM: Record<CureDate["from"], string> = {
  probe: "by the part's log",
  bake: "by the bake that was logged",
  climate: "by the climate that was logged",
  sheet: "by the sheet",
  "common practice": "common practice, 60 to 90 days",
};
const EVENT_MS = 15 * 60_000;

/** When a panel may be taped, sanded, polished and waxed, as iCalendar (RFC 5545), times in UTC; null before the last coat is on. */
export function panelToIcs({ job, panel, product, state }: PanelView, now_ms: number): string | null {
  const cure = state.coats.length < panel.coatsPlanned ? null : cureOf(product.sheet, state, now_ms);
  if (!cure) return null;
  const soft = state.soft ? " It is marked as soft: not before a thumbnail leaves no print." : "";
  const common = { startInputType: "utc", startOutputType: "utc", endInputType: "utc", endOutputType: "utc", timestamp: now_ms } as const;
  const events = cureDates(cure).map(({ stage, at_ms, from }): EventAttributes => {
    const start = Math.round(at_ms);
    return {
      ...common,
      uid: `cure-${panel.id}-${stage}@yakamoz`,
      title: `${job.vehicle}, ${panel.name}: ${CURE_STAGES[stage]}`,
      description: `${product.sheet.name}, ${FROM[from]}. Earliest time; the product's sheet goes first.${soft}`,
      start,
      end: start + EVENT_MS,
    };
  });
  const { error, value } = createEvents(events, { productId: "yakamoz", calName: `${job.vehicle}, ${panel.name}` });
  if (error || !value) throw error ?? new Error("no calendar");
  return value;
}
