import type { ClimateCheck } from "../models/prep/preflight";
import type { HoldingFault } from "../panel/fault-holds";
import type { StepReason } from "./steps";

/** What says no to a step, or not like this; it travels with the step to every page, clock and list. */
export type StepHold =
  | { by: "fault"; fault: HoldingFault }
  /** The air, part or material as it was read is outside what the clear wants; it says so for one stay in the booth. */
  | { by: "climate"; check: ClimateCheck; until_ms: number }
  /** The newest pot of its product is over its life, from then on. */
  | { by: "pot"; over_ms: number }
  /** What it waits for is not over. */
  | { by: "soon"; until_ms: number; why: StepReason };

/** Whether it says no, rather than look first. */
export const isNo = (hold: StepHold): boolean => hold.by !== "fault" || hold.fault.level === "stop";

/** Of what may say no some time, what does at a moment: a pot dies while nobody writes, and a climate that was read is forgotten. */
export const holdsAt = (holds: readonly StepHold[], now_ms: number): StepHold[] =>
  holds.filter((h) => (h.by === "climate" ? now_ms < h.until_ms : h.by !== "pot" || h.over_ms <= now_ms));
