import { seededRandom } from "../../kernel/stats/random";
import type { BenchSetting } from "../bench-setting";
import { type HandSlip, coatsInRows } from "../good-rows";
import type { CoatOfHand } from "../hand";

/** What a hand that nobody saw did wrong: it stood, so that it ran; it left a part of the panel thin. */
export type HiddenSlip = "ran" | "thin";

/** Coats as a hand sprayed them that nobody saw, with such a slip in it, by chance of a seed: where, how far, and of thin ones which. @throws RangeError */
export function hiddenHand(setting: BenchSetting, slips: readonly HiddenSlip[], seed: number): CoatOfHand[] {
  const random = seededRandom(seed);
  const between = (low: number, high: number) => low + (high - low) * random();
  const last = setting.coats - 1;
  const each: HandSlip[] = Array.from({ length: setting.coats }, () => ({}));
  for (const slip of slips) {
    const of = each[slip === "ran" ? last : Math.floor(random() * setting.coats)]!;
    if (slip === "ran") of.dwell = { row: 1 + Math.floor(2 * random()), seconds: between(0.3, 0.45), at: between(0.25, 0.75) };
    else {
      const kind = random();
      // A whole session of it: one coat alone that is a little thin would leave enough.
      if (kind < 0.4) each.forEach((coat) => (coat.inset_m = between(0.09, 0.12)));
      else if (kind < 0.7) each.forEach((coat) => (coat.rush = { row: 1 + Math.floor(2 * random()), times: between(2.6, 3.2) }));
      else each.forEach((coat) => (coat.overrun_m = -between(0.07, 0.11)));
    }
  }
  return coatsInRows(setting, each);
}
