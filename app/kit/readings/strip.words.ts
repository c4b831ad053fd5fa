import { STRIP_SHARE, type StripClear } from "#core/panel/strip";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import type { Working } from "~/kit/ui/figure";
import { line, withU } from "~/kit/words/lines";

export const stripWorking = (s: StripClear, units: UnitPreferences): Working => ({
  title: "Clear by a strip beside the part",
  formula: `Clear on the strip = after less before; what lies on the part may differ from it by ${Math.round(100 * STRIP_SHARE)} %. What was taken off the part since is taken off here too.`,
  inputs: [line("clear on the strip", "film", s.strip_m, units), withU("clear of the part", "film", s.clear_m, s.u_m, units)],
  sources: ["shop-reading", "yakamoz-default"],
  changesMost: "How near the strip stands, and that it hangs as the part does.",
});
