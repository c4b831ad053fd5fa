import { U_STROKES } from "#core/models/mix/mix-plan";
import { show, showSpan } from "#core/kernel/units/format";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import type { PotView } from "#server/views/pots-view";
import type { Working } from "~/kit/ui/figure";
import { line, withU } from "~/kit/words/lines";

/** The headline: the pot in the hand, or that none lives. */
export function potSentence(
  pots: readonly Pick<PotView, "product" | "until_ms" | "left_m3">[],
  now_ms: number,
  units: UnitPreferences,
): { main: string; rest: string } {
  const alive = pots.filter((p) => p.until_ms > now_ms && p.left_m3 > 0);
  const [first] = alive;
  if (!first) return { main: pots.length === 0 ? "Nothing is mixed yet." : "No pot lives.", rest: "" };
  const left = `${show("volume", first.left_m3, units).text} ${units.volume}`;
  return {
    main: alive.length === 1 ? `One pot lives: ${first.product},` : `${alive.length} pots live; the newest is ${first.product},`,
    rest: `${left} left, for ${showSpan((first.until_ms - now_ms) / 1000)}.`,
  };
}

export function potWorking({ entry, taken, left_m3 }: PotView, units: UnitPreferences): Working {
  const known = taken.flatMap((t) => (t.volume_m3 === null ? [] : [t.volume_m3]));
  const used_m3 = known.reduce((a, v) => a + v, 0);
  return {
    title: "What is left in the pot",
    formula:
      "What was mixed, less what each coat put through the gun: strokes × (length + overrun) ÷ hand speed × fluid, with the settings it was logged with. What stays in gun and strainer is not counted.",
    inputs: [
      line("mixed", "volume", entry.body.volume_m3, units),
      {
        name: "coats out of it",
        shown: `${taken.length}${known.length < taken.length ? `, ${taken.length - known.length} of unknown amount` : ""}`,
      },
      withU("taken", "volume", used_m3, U_STROKES * used_m3, units),
      withU("left", "volume", left_m3, U_STROKES * used_m3, units),
    ],
    sources: ["job-record", "common-practice"],
    changesMost: "The fluid rate: ten seconds into a cup settle it.",
  };
}
