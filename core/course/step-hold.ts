import type { ClimateCheck } from "../models/prep/preflight";
import type { HoldingFault } from "../panel/fault-holds";
import type { StepReason } from "./steps";

/** What says no to a step, or not like this; it travels with the step to every page, clock and list. */
export type StepHold =
  | { by: "fault"; fault: HoldingFault }
  /** Today's air, part or material is outside what the clear wants. */
  | { by: "climate"; check: ClimateCheck }
  /** The newest pot of its product is over its life. */
  | { by: "pot"; over_ms: number }
  /** What it waits for is not over. */
  | { by: "soon"; until_ms: number; why: StepReason };

/** Whether it says no, rather than look first. */
export const isNo = (hold: StepHold): boolean => hold.by !== "fault" || hold.fault.level === "stop";
