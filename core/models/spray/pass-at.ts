import { requireNumber } from "../../kernel/guard";
import { type HandOver, type Pass, USUAL_STROKES } from "./strokes";

/** Which pass a hand is on so long after it began, or turning behind; null: it is through. @throws RangeError */
export function passAt(
  passes: readonly Pass[],
  { handSpeed_m_s, turn_s = USUAL_STROKES.turn_s }: HandOver,
  elapsed_s: number,
): number | null {
  let left_s = requireNumber("elapsed_s", elapsed_s, { min: 0 });
  for (const [n, { x0_m, x1_m }] of passes.entries()) {
    left_s -= Math.abs(x1_m - x0_m) / requireNumber("handSpeed_m_s", handSpeed_m_s, { min: 0.02, max: 10 }) + turn_s;
    if (left_s < 0) return n;
  }
  return null;
}
