import { type EventAttributes, createEvents } from "ics";
import type { BoothPlan } from "#core/models/schedule/booth-plan";
import type { BoothCandidate } from "../views/booth-plan-view";

const MS = 1000;
const ML = 1e6;

/** The plan as iCalendar (RFC 5545): every coat and every pot, times in UTC. @throws Error when the library refuses an event */
export function boothPlanToIcs(
  plan: BoothPlan,
  { origin_ms, candidates, now_ms }: { origin_ms: number; candidates: readonly BoothCandidate[]; now_ms: number },
): string {
  const at = (s: number) => Math.round(origin_ms + s * MS);
  const common = { startInputType: "utc", startOutputType: "utc", endInputType: "utc", endOutputType: "utc", timestamp: now_ms } as const;
  const coats = plan.sprays.map((s): EventAttributes => {
    const c = candidates.find((x) => x.panelId === s.part);
    return {
      ...common,
      uid: `coat-${s.part}-${s.coat}@yakamoz`,
      title: `Coat ${s.coat}: ${c ? `${c.vehicle}, ${c.name}` : s.part}`,
      start: at(s.start_s),
      end: at(s.end_s),
      description: s.next
        ? `Painter ${s.painter + 1}, pot ${s.pot + 1}. Touch test before the next coat.`
        : `Painter ${s.painter + 1}, pot ${s.pot + 1}. Last coat.`,
    };
  });
  const pots = plan.pots.flatMap((p, i): EventAttributes[] =>
    p.mixed
      ? [
          {
            ...common,
            uid: `pot-${i + 1}-${at(p.mixAt_s)}@yakamoz`,
            title: `Mix ${p.product}, pot ${i + 1}`,
            start: at(p.mixAt_s),
            end: Math.max(at(p.from_s), at(p.mixAt_s) + 60 * MS),
            description: `About ${Math.round(p.volume_m3 * ML)} ml; spray it within its pot life.`,
          },
        ]
      : [],
  );
  if (coats.length + pots.length === 0) return "";
  const { error, value } = createEvents([...pots, ...coats], { productId: "yakamoz", calName: "Booth plan" });
  if (error || !value) throw error ?? new Error("no calendar");
  return value;
}
