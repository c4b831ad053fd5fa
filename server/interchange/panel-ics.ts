import { type EventAttributes, createEvents } from "ics";
import { CURE_STAGES } from "#core/models/cure/bake-plan";
import { cureCalendar } from "#core/models/cure/cure-calendar";
import type { PanelView } from "../views/panel-view";

const EVENT_MS = 15 * 60_000;

/** When a panel may be taped, sanded, polished and waxed, as iCalendar (RFC 5545), times in UTC; null before the last coat is on. */
export function panelToIcs({ job, panel, product, state }: PanelView, now_ms: number): string | null {
  const last = state.coats.at(-1);
  if (!last || state.coats.length < panel.coatsPlanned) return null;
  const log = state.oven && state.oven.at_ms > last.entry.at_ms ? state.oven.body.samples : null;
  const common = { startInputType: "utc", startOutputType: "utc", endInputType: "utc", endOutputType: "utc", timestamp: now_ms } as const;
  const events = cureCalendar(product.sheet, log).map(({ stage, after_s, from }): EventAttributes => {
    const start = Math.round(last.entry.at_ms + after_s * 1000);
    return {
      ...common,
      uid: `cure-${panel.id}-${stage}@yakamoz`,
      title: `${job.vehicle}, ${panel.name}: ${CURE_STAGES[stage]}`,
      description: `${product.sheet.name}, ${from === "common practice" ? "common practice, 60 to 90 days" : `by the ${from}`}. Earliest time; the product's sheet goes first.`,
      start,
      end: start + EVENT_MS,
    };
  });
  const { error, value } = createEvents(events, { productId: "yakamoz", calName: `${job.vehicle}, ${panel.name}` });
  if (error || !value) throw error ?? new Error("no calendar");
  return value;
}
