import type { GlossSummary } from "#core/models/gloss/gloss-statistics";
import type { GlossRead } from "#core/panel/gloss-read";
import { glossBeside } from "#core/models/gloss/gloss-beside";
import type { wantedGloss } from "#core/panel/neighbour";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import type { Working } from "~/kit/ui/figure";
import { line, withU } from "~/kit/words/lines";

export function glossWorking(s: GlossSummary, units: UnitPreferences): Working {
  return {
    title: `Gloss at ${s.angle}°`,
    formula:
      "The middle one of the readings, so that one astray moves nothing. Uncertainty: 1.25 × spread from place to place ÷ √n and the meter's own 0.3 GU, added in squares. Even means that highest and lowest lie within 2 GU or 15 % of the mean, whichever is more.",
    inputs: [
      { name: "readings", shown: String(s.n) },
      withU("middle", "gloss", s.middle_GU, s.u_GU, units),
      line("spread from place to place", "gloss", s.spread_GU, units),
      line("lowest", "gloss", s.lowest_GU, units),
      line("highest", "gloss", s.highest_GU, units),
    ],
    sources: ["iso-2813", "shop-reading", "common-practice"],
    changesMost: "Readings spread over the whole part: one place says nothing about evenness.",
  };
}

/** Where the gloss that is wanted comes from; what the brief says otherwise is said beside it. */
export function wantedWords(
  wanted: ReturnType<typeof wantedGloss>,
  { vehicle, brief_GU }: { vehicle: GlossRead | undefined; brief_GU: number | null },
): string {
  if (!wanted) return "read the vehicle near the repair";
  if (wanted.from === "brief") return "as the brief wants it";
  const read = vehicle?.summary.middle_GU === wanted.GU ? vehicle : undefined;
  const told = read ? `, ${read.summary.n} readings${read.newest.simulated ? ", simulated" : ""}` : "";
  const other = brief_GU !== null && glossBeside(wanted.GU, brief_GU) !== "good" ? `; the brief says ${brief_GU} GU: ask` : "";
  return `${read ? "the vehicle" : "the panel beside"} reads ${wanted.GU.toFixed(1)} GU${told}${other}`;
}
