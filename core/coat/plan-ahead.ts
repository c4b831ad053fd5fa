import { coatsAhead, type CoatsAsked } from "./coats-ahead";
import { type Clear, type ClearThere, clearAfter } from "./clear-after";
import { type Litres, litresAgain, litresToCome } from "./litres";
import { potLifeNow } from "./pot-life";

/** What a panel's coats come to, for its plan. */
export interface PlanAhead {
  /** Clear of the front with all planned coats on; null: a setting lies beyond the flow model. */
  clear: Clear | null;
  /** What as many coats of the sheet's own film come to. */
  bySheet_m: number;
  /** For the coats to come, and for all of them once more. */
  litres: Litres;
  again: Litres;
  potLife_s: number;
}

/** @param now clear of the front as the film's owner has it; null: none @throws RangeError */
export function planAhead(asked: CoatsAsked, now: ClearThere | null): PlanAhead {
  const { brief, sheet } = asked;
  const ahead = coatsAhead(asked, "front");
  return {
    clear: ahead && clearAfter(asked.facts, "front", { now, ahead_m: ahead.map((c) => c.dry_m), u_log: asked.shopFilm?.u_log }),
    bySheet_m: (brief.coatsPlanned * (sheet.filmPerCoatMin_m + sheet.filmPerCoatMax_m)) / 2,
    litres: litresToCome(asked),
    again: litresAgain(asked),
    potLife_s: potLifeNow(asked),
  };
}
