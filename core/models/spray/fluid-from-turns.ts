import { requireNumber } from "../../kernel/guard";

/** ml/min a turn and its relative standard uncertainty: a default until the gun is measured with a timed cup. */
export const TURNS_DEFAULT = { ratePerTurn_m3_s: 102e-6 / 60, saturation_turns: 4, relativeU: 0.25 } as const;

/**
 * Fluid rate guessed from the needle's turns out from closed: straight up to four turns, flat beyond. An estimate, never a reading.
 * @throws RangeError @example fluidFromTurns(2.25).fluidRate_m3_s // 229.5 ml/min
 */
export function fluidFromTurns(turns: number): { fluidRate_m3_s: number; u_m3_s: number } {
  const open = Math.min(requireNumber("turns", turns, { above: 0, max: 10 }), TURNS_DEFAULT.saturation_turns);
  const fluidRate_m3_s = open * TURNS_DEFAULT.ratePerTurn_m3_s;
  return { fluidRate_m3_s, u_m3_s: fluidRate_m3_s * TURNS_DEFAULT.relativeU };
}
