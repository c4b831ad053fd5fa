import type { UnitPreferences } from "#core/kernel/units/quantities";
import type { RoundHand } from "#core/vehicle/round-walk";
import { initial } from "~/kit/form/initial";
import { readTyped } from "~/kit/form/read-typed";

/** Cup, filling and stepping on as the fields begin. */
export const handTexts = (hand: RoundHand, units: UnitPreferences) => ({
  cup: initial("volume", hand.cup_m3, units),
  refill: initial("duration", hand.refill_s, units),
  between: initial("duration", hand.between_s, units),
});

/** The same as typed. */
export const readHand = (typed: Record<string, unknown>, units: UnitPreferences) =>
  readTyped(typed, units, (r): RoundHand => ({
    cup_m3: r.quantity("cup", "volume", { min: 50e-6, max: 0.02 }),
    refill_s: r.quantity("refill", "duration", { min: 0, max: 3600 }),
    between_s: r.quantity("between", "duration", { min: 0, max: 3600 }),
  }));
