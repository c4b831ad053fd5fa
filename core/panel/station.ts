export const STATIONS = ["plan", "spray", "inspect", "correct", "hand-over"] as const;
export type Station = (typeof STATIONS)[number];
export const STATION_NAMES: Record<Station, string> = {
  plan: "Plan",
  spray: "Spray",
  inspect: "Inspect",
  correct: "Correct",
  "hand-over": "Hand over",
};
