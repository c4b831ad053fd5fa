import type { ClearNow } from "#core/judge/how-known";
import { HOW_WORDS } from "~/kit/words/how-words";
import type { PlanAhead } from "#core/coat/plan-ahead";
import { COVERAGE, showFilm } from "#core/kernel/units/format";
import type { UnitPreferences } from "#core/kernel/units/quantities";

/** What of the planned clear is to spare over the floor: surely, by forecast alone, or none. Ends the sentence. */
export function spareWords(
  clear: PlanAhead["clear"],
  { matte, floor_m, units }: { matte: boolean; floor_m: number; units: UnitPreferences },
): string {
  if (matte) return ". What is sprayed stays as it is.";
  if (!clear) return ".";
  const film = (m: number) => `${showFilm(m, units).text} ${units.film}`;
  const spare_m = clear.clear_m - floor_m;
  const sure_m = spare_m - COVERAGE * clear.u_m;
  if (spare_m <= 0) return ": nothing to spare for sanding.";
  return sure_m > 0
    ? `, ${film(sure_m)} of it surely to spare for sanding.`
    : `: ${film(spare_m)} over the minimum if it comes out so, and not sure before it is read.`;
}

/** What the promised clear rests on. */
export function basisWords({ known, there, allOn }: { known: boolean; there: ClearNow | null; allOn: boolean }): string {
  if (!known) return "By the sheet alone: the gun lies beyond the model.";
  if (!there) return "By the gun in the hand, predicted, not measured.";
  const how = HOW_WORDS[there.how];
  return allOn ? `All coats are on: ${how}.` : `What is on is ${how}; the rest by the gun in the hand.`;
}
