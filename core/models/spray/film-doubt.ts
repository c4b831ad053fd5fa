import { requireNumber } from "../../kernel/guard";
import { SPRAY } from "./constants";

/**
 * Doubt of the film of several coats together: the model's own error is common to all that this shop's guns lay, the rest from coat to coat is not.
 * @param coats_m dry film of each @param u_log log-sd of what is common: the shop's own once it is learnt @throws RangeError
 */
export const filmDoubt = (coats_m: readonly number[], u_log: number): number =>
  Math.hypot(requireNumber("u_log", u_log, { min: 0 }) * coats_m.reduce((a, m) => a + m, 0), ...coats_m.map((m) => SPRAY.coatLogSd * m));
