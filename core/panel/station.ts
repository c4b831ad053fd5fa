import type { Verdict } from "../record/kinds";

export const STATIONS = ["plan", "spray", "inspect", "correct", "hand-over"] as const;
export type Station = (typeof STATIONS)[number];
export const STATION_NAMES: Record<Station, string> = {
  plan: "Plan",
  spray: "Spray",
  inspect: "Inspect",
  correct: "Correct",
  "hand-over": "Hand over",
};

export interface PanelCounts {
  coatsPlanned: number;
  coats: number;
  readings: { before: number; after: number; recheck: number };
  defects: number;
  plan: { steps: number; verdict: Verdict } | null;
  stepsDone: number;
  handedOver: boolean;
}

/** Where a panel stands and what is wanted next, in the painter's order. */
export function stationOf(p: PanelCounts): { station: Station; next: string; attention: boolean; done: boolean } {
  const say = (station: Station, next: string, attention = false, done = false) => ({ station, next, attention, done });
  if (p.handedOver) return say("hand-over", "Handed over", false, true);
  if (p.plan && p.stepsDone < p.plan.steps)
    return p.plan.verdict === "stop"
      ? say("correct", "Plan says stop: choose another way", true)
      : say("correct", `Step ${p.stepsDone + 1} of ${p.plan.steps}`);
  if (p.plan && p.readings.recheck === 0) return say("correct", "Measure again after the last step", true);
  if (p.plan) return say("hand-over", "Ready to hand over");
  if (p.readings.after > 0)
    return p.defects > 0 ? say("correct", `${p.defects} to put right`, true) : say("correct", "Read; decide what to do");
  if (p.coats >= p.coatsPlanned) return say("inspect", "Read the film after clear");
  if (p.coats > 0) return say("spray", `Coat ${p.coats + 1} of ${p.coatsPlanned}`);
  if (p.readings.before === 0) return say("spray", "Take before-readings", true);
  return say("spray", `Coat 1 of ${p.coatsPlanned}`);
}
