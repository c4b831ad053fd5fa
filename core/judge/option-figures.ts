import type { RemovalStep } from "../models/correction/removal-plan";
import { MOST_CLEAR_M, MOST_TOTAL_M, MOST_TOTAL_REBASE_M, VERDICT_LIMITS } from "./limits";

/** What a shop's hour, materials and a rejected job cost, in the shop's own money. Defaults of ours: edit them. */
export interface ShopRates {
  labourPerHour: number;
  /** Loss when the customer sends the panel back for what was left on it. */
  rejected: number;
  /** What a day costs on which the job stands and waits for a cure. */
  waitingPerDay: number;
}
export const DEFAULT_RATES: ShopRates = { labourPerHour: 60, rejected: 350, waitingPerDay: 15 };

/**
 * Minutes and materials of each way, and how likely what is left is to be seen. All defaults of ours, not validated.
 */
export const OPTION_FIGURES = {
  /** Chance that what is left is rejected: logistic about a middle, per nib, per run. */
  peel: { middle_m: 3e-6, width_m: 0.8e-6 },
  perNib: 0.15,
  run: { middle_m: 25e-6, width_m: 8e-6 },
  spot: { minutes: 4, minutesPerNib: 2.5, material: 2, materialPerNib: 0.3, residual: 0.05 },
  runWork: { extraMinutes: 8, material: 5, residual: 0.05 },
  full: { minutes: 25, minutesPer_m2: 45, material: 12, materialPer_m2: 10, residual: 0.03 },
  flow: { minutes: 55, minutesPer_m2: 30, material: 35, materialPer_m2: 40, residual: 0.06, adds_m: 50e-6, uAdds_m: 5e-6 },
  rebase: { minutes: 75, minutesPer_m2: 50, material: 70, materialPer_m2: 60, residual: 0.06, clear_m: 55e-6, u_m: 6e-6, adds_m: 70e-6 },
  polish: { minutes: 12, minutesPer_m2: 22, material: 5, materialPer_m2: 4 },
  /** At each place; only while it is wet, or hot; a drop has to cure and is levelled like a nib. */
  wet: { minutes: 1, minutesPerPlace: 1, material: 0.5, materialPerPlace: 0.1 },
  dab: { minutes: 6, minutesPerPlace: 1, material: 2, materialPerPlace: 0.1 },
  dropFill: { minutes: 10, minutesPerPlace: 6, material: 3, materialPerPlace: 0.4, most: 8 },
  halfCoat: { minutes: 8, minutesPer_m2: 6, material: 5, materialPer_m2: 12, adds_m: 22e-6, uAdds_m: 7e-6 },
  /**
   * Taken back to sound clear and so far beyond, built up and cleared over the panel. Common practice 125 to 150 mm. Where nobody drew or sized it, it
   * is a hand's breadth.
   */
  sandOut: {
    minutes: 45,
    minutesPer_m2: 60,
    material: 25,
    materialPer_m2: 40,
    residual: 0.06,
    beyond_m: 0.15,
    undrawn_m: 0.14,
    clearShare: 0.6,
  },
  /** Before new base: what is not sound taken off so far beyond, its pits filled, a barrier over what lifts. The last two dry an hour and are sanded. */
  before: {
    strip: { minutes: 30, minutesPer_m2: 60, material: 12, materialPer_m2: 25 },
    fill: { minutes: 45, minutesPer_m2: 20, material: 15, materialPer_m2: 10 },
    barrier: { minutes: 40, minutesPer_m2: 15, material: 20, materialPer_m2: 20 },
  },
  clean: { minutes: 25, material: 4 },
  wait: { minutes: 5, material: 0 },
  /** Rework after cutting through, share of thin panels that come back, and of flow coats sanded through that need base. */
  cutRework: 1.3,
  warrantyShare: 0.35,
  flowRework: 0.6,
  gougeRework: 0.5,
  /** Spread of a texture that was not measured panel-wide. */
  textureSpread: 0.12,
  finishing_m: 3e-6,
  /** What is rejected more often than this is not left, whatever mending it costs, while something mends half of it. */
  leaveMost: 0.5,
} as const;

/** Limits that close a way whatever it costs. Defaults of ours. */
export const OPTION_LIMITS = {
  ...VERDICT_LIMITS.caution,
  flowCut: 0.1,
  totalAfterFlow_m: MOST_TOTAL_M,
  clearAfterFlow_m: MOST_CLEAR_M,
  totalAfterRebase_m: MOST_TOTAL_REBASE_M,
} as const;

/** Whether a panel may be sanded flat for a flow coat: the page of the flow coat and the options ask this one. Base and clear mend what goes through. */
export const flatVerdict = (cutChance: number): "safe" | "caution" | "stop" =>
  cutChance <= VERDICT_LIMITS.safe.cut ? "safe" : cutChance <= OPTION_LIMITS.flowCut ? "caution" : "stop";

export const SPOT_STEPS: readonly RemovalStep[] = [{ grit: "P2000", backing: "medium" }, { polish: "compound" }, { polish: "polish" }];
export const POLISH_STEPS: readonly RemovalStep[] = [{ polish: "compound" }, { polish: "polish" }];
export const FULL_STEPS: readonly RemovalStep[] = [
  { grit: "P1500", backing: "medium" },
  { grit: "P3000", backing: "soft" },
  { polish: "compound" },
  { polish: "polish" },
];
export const FLOW_STEPS: readonly RemovalStep[] = [{ grit: "P1000", backing: "medium" }];
