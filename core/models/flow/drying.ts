import { requireNumber } from "../../kernel/guard";
import { FLOW } from "./constants";

const NEWTON_MOST = 50;
const NEWTON_END = 1e-13;

/**
 * Time for a film to dry from composition u₀ to u, in units of τ = solids film ÷ evaporation rate (rate ∝ [u/(u + u_c)]²).
 * @throws RangeError unless 0 < u ≤ u₀
 */
export function dryingTime(u: number, u0: number): number {
  requireNumber("u0", u0, { above: 0 });
  requireNumber("u", u, { above: 0, max: u0 * (1 + 1e-12) });
  const c = FLOW.slowComposition;
  return u0 - u + 2 * c * Math.log(u0 / u) + c * c * (1 / u - 1 / u0);
}

/**
 * Composition after a time (in units of τ): the inverse of {@link dryingTime} by Newton in ln u from the far side, where it is monotone.
 * @throws RangeError when it does not converge, which no valid input does
 */
export function compositionAfter(time: number, u0: number): number {
  requireNumber("time", time, { min: 0 });
  requireNumber("u0", u0, { above: 0 });
  if (time === 0) return u0;
  const c = FLOW.slowComposition;
  let x = -Math.log(1 / u0 + time / (c * c));
  for (let i = 0; i < NEWTON_MOST; i++) {
    const u = Math.exp(x);
    const f = u0 - u + 2 * c * Math.log(u0 / u) + c * c * (1 / u - 1 / u0) - time;
    const step = (f * u) / (u + c) ** 2;
    x += step;
    if (Math.abs(step) < NEWTON_END) return Math.exp(x);
  }
  throw new RangeError(`composition must converge, got time ${time} from u0 ${u0}`);
}
