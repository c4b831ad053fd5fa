import type { GunBody } from "#core/models/spray/gun";
import { CUP_U, type GunCurve, gunFlow } from "#core/models/spray/gun-curve";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import type { Working } from "~/kit/ui/figure";
import { line, withU } from "~/kit/words/lines";

/** How a gun's fluid rate came about. */
export function gunWorking(gun: GunBody, curve: GunCurve | null, units: UnitPreferences): Working {
  const flow = gunFlow(curve, gun.settings.turns, gun.cups);
  return {
    title: "Fluid rate",
    formula: curve
      ? "Flow of a needle rises with its turns and levels off: full flow × (1 − e to the power of −turns over rise), set to the timed cups."
      : "A usual needle gives about 102 ml/min a turn up to four turns. Nobody has measured this one.",
    inputs: [
      { name: "Needle now", shown: `${gun.settings.turns} turns out` },
      ...gun.cups.map((c, i) => {
        const v = line("", "volume", c.volume_m3, units);
        return { name: `Cup ${i + 1}`, shown: `${v.shown} in ${c.time_s} s at ${c.turns} turns` };
      }),
      ...(curve
        ? [
            line("Full flow of the curve", "fluidRate", curve.full_m3_s, units),
            { name: "Rise", shown: `${curve.rise_turns.toFixed(1)} turns` },
          ]
        : []),
      {
        name: "Doubt",
        shown: curve ? `${Math.round(curve.relativeU * 100)} %, a cup alone ${CUP_U * 100} %; double outside the turns measured` : "25 %",
      },
      withU("Fluid", "fluidRate", flow.fluidRate_m3_s, flow.u_m3_s, units),
    ],
    sources: curve ? ["shop-reading", "common-practice"] : ["common-practice"],
    changesMost: curve ? "A cup at the turns you spray with." : "One cup of ten seconds.",
  };
}
